import { Navigate, type RouteObject, useRouteError } from 'react-router'

import { assemblyQuery } from '../api/assemblies'
import { collectionQuery, registerQuery } from '../api/collection'
import { openDataQuery, placeCountsQuery } from '../api/dossier'
import { historyQuery } from '../api/history'
import { modelQuery, modelsQuery } from '../api/identify'
import { classesQuery, meterQuery, openingsQuery, risksQuery } from '../api/judge'
import { knownQuery, oneKnownQuery } from '../api/known'
import { libraryQuery, makersQuery, occurrencesQuery } from '../api/library'
import { lotQuery, lotsQuery } from '../api/lots'
import { facetsQuery, machineQuery, machinesQuery } from '../api/machines'
import { looseQuery } from '../api/moves'
import { proceduresQuery } from '../api/openup'
import { partiesQuery } from '../api/parties'
import { ownSessionsQuery, peopleQuery } from '../api/people'
import { practiceQuery } from '../api/practice'
import { readerQuery, romListQuery, romSetsQuery } from '../api/roms'
import { signListsQuery } from '../api/signs'
import { needsQuery, ordersQuery, stockQuery } from '../api/stores'
import { deadlinesQuery, findingsByYearQuery, inHandQuery, looksAheadQuery, unknownCountsQuery } from '../api/start'
import { diaryQuery, roundQuery, roundsDueQuery, roundsQuery, rulesQuery } from '../api/upkeep'
import { offersQuery, wantsQuery } from '../api/wanted'
import { policiesQuery } from '../api/work'
import { Frame } from '../frame/Frame'
import { NothingHere } from '../frame/NothingHere'
import { lazyPage } from '../kit/lazyPage'
import { benchQueries, glance, stages } from '../rooms/bench/stages'
import { readQuery } from '../rooms/collection/machineFilters'
import { shownWeeks } from '../rooms/diary/shownWeeks'
import { App } from './App'
import { Moved } from './Moved'
import { type Asks, onMoves, prepare } from './prepare'

type Module = { default: React.ComponentType }

/** A page with its own piece of code. */
function page(path: string, load: () => Promise<Module>, asks?: Asks): RouteObject {
  const { Page, load: fetch } = lazyPage(() => load().then((module) => module.default))
  return { path, element: <Page />, loader: prepare(fetch, asks), shouldRevalidate: onMoves }
}

const words = (filters: URLSearchParams, name = 'search') => filters.get(name) ?? ''

const bench: Asks = ({ machineId, stage }) => {
  const id = Number(machineId)
  const at = [glance, ...stages].find(({ path }) => path === stage)
  void at?.page?.load().catch(() => undefined) // the page says so itself where it cannot be shown
  return [machineQuery(id), ...Object.values(benchQueries(id)), ...(at?.asks?.(id) ?? [])]
}

/** What no page has caught goes to the note around the application. */
function Failed(): never {
  throw useRouteError()
}

export const routes: RouteObject[] = [
  page('/welcome', () => import('../frame/Welcome')),
  { element: <App />, errorElement: <Failed />, HydrateFallback: () => null, children: [{ element: <Frame />, children: [
    { index: true, element: <Navigate to="/start" replace /> },
    page('/start', () => import('../rooms/start/Start'),
      (_, __, { mayWriteSheets }) => [risksQuery(0), deadlinesQuery, inHandQuery,
        machinesQuery({ statement: ['disputed'] }),
        historyQuery('collection'), looksAheadQuery, findingsByYearQuery, unknownCountsQuery, facetsQuery({}),
        ...(mayWriteSheets ? [openDataQuery] : [])]),
    page('/collection', () => import('../rooms/collection/Collection'),
      (_, filters) => [machinesQuery(readQuery(filters)), facetsQuery(readQuery(filters))]),
    page('/collection/new', () => import('../rooms/collection/NewMachine')),
    page('/collection/policies', () => import('../rooms/collection/CollectionPolicies'), () => [policiesQuery(0)]),
    page('/collection/labels', () => import('../rooms/collection/Labels')),
    page('/collection/arrivals', () => import('../rooms/arrivals/Arrivals'),
      (_, filters) => [lotsQuery(words(filters))]),
    page('/collection/arrivals/new', () => import('../rooms/arrivals/NewLot')),
    page('/collection/arrivals/:lotId', () => import('../rooms/arrivals/OneLot'),
      ({ lotId }) => [lotQuery(Number(lotId))]),
    page('/stores', () => import('../rooms/stores/Stores'),
      (_, filters) => [looseQuery(words(filters))]),
    page('/stores/parts', () => import('../rooms/stores/Parts'),
      (_, filters) => [stockQuery(words(filters))]),
    page('/stores/needs', () => import('../rooms/stores/Needs'), () => [needsQuery]),
    page('/stores/wanted', () => import('../rooms/stores/Wanted'), () => [wantsQuery, offersQuery]),
    page('/stores/orders', () => import('../rooms/stores/Orders'), () => [ordersQuery, needsQuery]),
    page('/stores/places', () => import('../rooms/stores/Places'),
      () => [placeCountsQuery]),
    page('/stores/:assemblyId', () => import('../rooms/stores/OneLoose'),
      ({ assemblyId }) => [assemblyQuery(Number(assemblyId))]),
    page('/diary', () => import('../rooms/diary/Diary'),
      (_, filters, { mayWriteSheets }) => [historyQuery('collection'), diaryQuery(filters.get('from') ?? '', shownWeeks),
        roundsDueQuery, roundsQuery, ...(mayWriteSheets ? [openDataQuery] : [])]),
    page('/diary/upkeep', () => import('../rooms/diary/UpkeepRules'), () => [rulesQuery]),
    page('/diary/rounds/:id', () => import('../rooms/diary/OneRound'), ({ id }) => [roundQuery(Number(id))]),
    page('/diary/open-first', () => import('../rooms/diary/OpenFirst'),
      () => [openingsQuery(240), risksQuery(0)]),
    page('/diary/ageing', () => import('../rooms/diary/Ageing'),
      () => [classesQuery]),
    page('/library', () => import('../rooms/library/Library'),
      (_, filters) => [libraryQuery(words(filters, 'start'))]),
    page('/library/occurrences', () => import('../rooms/library/Occurrences'),
      (_, filters) => filters.has('number') ? [occurrencesQuery(words(filters, 'number'))] : []),
    page('/library/people', () => import('../rooms/library/people/People'),
      (_, filters) => [partiesQuery(words(filters))]),
    page('/library/unknowns', () => import('../features/unknowns/CollectionUnknowns')),
    page('/library/makers', () => import('../rooms/library/makers/Makers'),
      (_, filters) => [makersQuery(words(filters))]),
    page('/library/models', () => import('../rooms/library/models/Models'),
      (_, filters) => [modelsQuery(words(filters))]),
    page('/library/models/:id', () => import('../rooms/library/models/OneModel'),
      ({ id }) => [modelQuery(Number(id))]),
    page('/library/known', () => import('../rooms/library/known/KnownAssemblies'),
      (_, filters) => [knownQuery(words(filters))]),
    page('/library/known/:id', () => import('../rooms/library/known/OneKnown'),
      ({ id }) => [oneKnownQuery(Number(id))]),
    page('/library/signs', () => import('../rooms/library/signs/SignLists'),
      (_, filters) => [signListsQuery(words(filters, 'words'))]),
    page('/library/packs', () => import('../rooms/library/packs/Packs')),
    page('/library/roms', () => import('../rooms/library/roms/RomList'),
      (_, filters) => [romListQuery(words(filters)), romSetsQuery]),
    page('/library/roms/:sha256', () => import('../rooms/library/roms/OneRom')),
    page('/library/procedures', () => import('../rooms/library/procedures/Procedures'),
      () => [proceduresQuery]),
    page('/account', () => import('../rooms/account/Account'),
      (_, __, { role }) => [ownSessionsQuery,
        ...(role === 'curator' ? [collectionQuery, registerQuery, peopleQuery] : [])]),
    page('/instruments', () => import('../rooms/instruments/Instruments'),
      (_, __, { mayWriteSheets }) => mayWriteSheets ? [meterQuery, readerQuery] : []),
    page('/practice', () => import('../rooms/practice/Practice'), () => [practiceQuery]),
    page('/try', () => import('../rooms/try/TrySheet')),
    page('/unsent', () => import('../rooms/unsent/Unsent')),
    page('/bench', () => import('../rooms/bench/EmptyBench')),
    { path: '/bench/:machineId', element: <Navigate to="at-a-glance" replace /> },
    page('/bench/:machineId/print', () => import('../rooms/bench/PrintView')),
    page('/bench/:machineId/condition-report', () => import('../rooms/bench/stages/judge/ConditionReport')),
    page('/bench/:machineId/operating-card', () => import('../rooms/bench/stages/setup/OperatingPaper')),
    page('/bench/:machineId/slot-sheet', () => import('../rooms/bench/stages/setup/SlotPaper')),
    page('/bench/:machineId/configuration/:configurationId',
      () => import('../rooms/bench/stages/setup/ConfigurationPaper')),
    page('/bench/:machineId/way', () => import('../rooms/bench/stages/openup/WayOnPaper')),
    page('/bench/:machineId/tray-labels/:teardownId', () => import('../rooms/bench/stages/openup/TrayLabels')),
    page('/bench/:machineId/board-picture/:attachmentId', () => import('../features/annotation/Annotation')),
    page('/bench/:machineId/:stage', () => import('../rooms/bench/Bench'), bench),
    { path: '/shelves/*', element: <Moved /> },
    { path: '*', element: <NothingHere /> },
  ] }] },
]
