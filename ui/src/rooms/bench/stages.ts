import type { ComponentType } from 'react'

import { assembliesQuery, type FittedAssembly } from '../../api/assemblies'
import { attachmentsQuery } from '../../api/attachments'
import type { Schemas } from '../../api/client'
import { diagnosesQuery } from '../../api/diagnosis'
import { type Dossier, dossierQuery } from '../../api/dossier'
import { glanceQuery } from '../../api/glance'
import { datingQuery, identifyStageQuery } from '../../api/identify'
import { conditionQuery, measurementsQuery, risksQuery } from '../../api/judge'
import { type Machine, machinesQuery } from '../../api/machines'
import { type OpenedUp, openedUpQuery, wiringQuery } from '../../api/openup'
import { powerQuery } from '../../api/power'
import { treatmentQuery } from '../../api/work'
import { type LazyPage, lazyPage } from '../../kit/lazyPage'
import type { Reckoning } from '../../features/reckoning/useReckoning'
import { sheetEditor } from './stages/takestock/editor/sheetEditor'

/** The machine in hand with what its stages work on. */
export type OnBench = { machine: Machine; assemblies: FittedAssembly[]; dossier: Dossier; reckoning: Reckoning }

/** What every stage of a machine needs, or the rail says. */
export const benchQueries = (machineId: number) => ({
  assemblies: assembliesQuery(machineId), dossier: dossierQuery(machineId), identified: identifyStageQuery(machineId),
  opened: openedUpQuery(machineId), condition: conditionQuery(machineId), power: powerQuery(machineId),
  treatment: treatmentQuery(machineId), diagnosed: diagnosesQuery(machineId),
})

export type StageState = Schemas['ReckonedStage']

/** What tells how the stages stand, as far as it is there. */
type Known = { dossier?: Dossier; machine?: Schemas['ReckonedMachine']; identified?: StageState
  opened?: OpenedUp; condition?: { stage: StageState }; power?: { stage: StageState }
  treatment?: { stage: StageState }; diagnosed?: { stage: StageState } }

/**
 * A stage of the work: what a registrar calls it, the lines of the reckoning that it is about, its page with what that
 * asks for first, and how it stands. `later` says what one that is not open yet will hold.
 */
export type Stage = { path: string; name: string; usual: string; figures: string[]; later?: string
  page?: LazyPage<OnBench>; asks?: (machineId: number) => object[]; state?: (known: Known) => StageState | undefined }

/** A stage with sheets, whose editor comes with it. */
function withEditor(fetch: () => Promise<ComponentType<OnBench>>): LazyPage<OnBench> {
  const { Page, load } = lazyPage(fetch)
  return { Page, load: () => Promise.all([load(), sheetEditor.load()]) }
}

/** The page of the machine, which goes before the stages. */
export const glance: Stage = { path: 'at-a-glance', name: 'At a glance', usual: 'dossier',
  figures: ['ram', 'rom', 'built', 'condition'],
  page: lazyPage(() => import('./glance/AtAGlance').then((m) => m.AtAGlance)),
  asks: (id) => [glanceQuery(id), machinesQuery({ id: [id] })] }

/** The stages in the order of the work. */
export const stages: Stage[] = [
  { path: 'arrive', name: 'Arrive', usual: 'acquisition and provenance', figures: ['custody'],
    page: lazyPage(() => import('./stages/arrive/Arrive').then((m) => m.Arrive)),
    state: ({ dossier }) => dossier?.stages.arrive },
  { path: 'look-over', name: 'Look over', usual: 'external inspection', figures: ['evidence', 'ports'],
    page: withEditor(() => import('./stages/lookover/LookOver').then((m) => m.LookOver)),
    asks: (id) => [attachmentsQuery({ machine: id })], state: ({ dossier }) => dossier?.stages.lookOver },
  { path: 'open-up', name: 'Open up', usual: 'disassembly', figures: ['open-connectors'],
    page: lazyPage(() => import('./stages/openup/OpenUp').then((m) => m.OpenUp)),
    asks: (id) => [wiringQuery(id)], state: ({ opened }) => opened?.stage },
  { path: 'take-stock', name: 'Take stock', usual: 'components',
    figures: ['ram', 'rom', 'parts', 'unidentified', 'dates'],
    page: withEditor(() => import('./stages/takestock/TakeStock').then((m) => m.TakeStock)),
    state: ({ machine }) => machine?.stage },
  { path: 'identify', name: 'Identify', usual: 'identification, dating',
    figures: ['built', 'dates', 'unidentified', 'fading'],
    page: lazyPage(() => import('./stages/identify/Identify').then((m) => m.Identify)),
    asks: (id) => [datingQuery(id)], state: ({ identified }) => identified },
  { path: 'judge', name: 'Judge', usual: 'condition check', figures: ['condition', 'measured', 'looks-due', 'signs'],
    page: lazyPage(() => import('./stages/judge/Judge').then((m) => m.Judge)),
    asks: (id) => [measurementsQuery(id), risksQuery(id)], state: ({ condition }) => condition?.stage },
  { path: 'make-good', name: 'Make good', usual: 'treatment', figures: ['jobs', 'condition'],
    page: lazyPage(() => import('./stages/makegood/MakeGood').then((m) => m.MakeGood)),
    state: ({ treatment }) => treatment?.stage },
  { path: 'power-up', name: 'Power up', usual: 'first power', figures: ['gate', 'console', 'draw'],
    page: lazyPage(() => import('./stages/powerup/PowerUp').then((m) => m.PowerUp)),
    asks: (id) => [measurementsQuery(id)], state: ({ power }) => power?.stage },
  { path: 'set-up', name: 'Set up', usual: 'configuration', figures: ['trials'],
    page: lazyPage(() => import('./stages/setup/SetUp').then((m) => m.SetUp)),
    state: ({ diagnosed }) => diagnosed?.stage },
  { path: 'keep', name: 'Keep', usual: 'storage and care', figures: [],
    later: 'Keep will hold storage, checks that fall due, loans, labels and reports.' },
]
