import { useQuery } from '@tanstack/react-query'
import { lazy, Suspense, useEffect } from 'react'
import { useParams } from 'react-router'
import styled from 'styled-components'

import { assembliesQuery } from '../../api/assemblies'
import { dossierQuery } from '../../api/dossier'
import { identifyStageQuery } from '../../api/identify'
import { conditionQuery } from '../../api/judge'
import type { Machine } from '../../api/machines'
import { openedUpQuery } from '../../api/openup'
import { messageOf } from '../../api/problem'
import { Boundary } from '../../kit/Boundary'
import { Notice } from '../../kit/Notice'
import { Reckoning } from '../../reckoning/Reckoning'
import { useReckoning } from '../../reckoning/useReckoning'
import { color, narrow, space } from '../../theme'
import { LaterText } from './LaterText'
import { MachineHead } from './MachineHead'
import { StageRail } from './StageRail'
import { beInStage } from './lastOnBench'
import { glance, stages } from './stages'
import { TakeStock } from './stages/takestock/TakeStock'

const AtAGlance = lazy(() => import('./glance/AtAGlance').then(({ AtAGlance: page }) => ({ default: page })))
const Arrive = lazy(() => import('./stages/arrive/Arrive').then(({ Arrive: page }) => ({ default: page })))
const Identify = lazy(() => import('./stages/identify/Identify').then(({ Identify: page }) => ({ default: page })))
const Judge = lazy(() => import('./stages/judge/Judge').then(({ Judge: page }) => ({ default: page })))
const OpenUp = lazy(() => import('./stages/openup/OpenUp').then(({ OpenUp: page }) => ({ default: page })))
const LookOver = lazy(() => import('./stages/lookover/LookOver').then(({ LookOver: page }) => ({ default: page })))

/** Rail, stage and reckoning of one machine. */
export function MachineOnBench({ machine }: { machine: Machine }) {
  const wanted = useParams().stage
  const stage = stages.find(({ path }) => path === wanted)
  const stagePath = stage?.path
  useEffect(() => { if (stagePath) beInStage(stagePath) }, [stagePath])
  const assemblies = useQuery(assembliesQuery(machine.id))
  const dossier = useQuery(dossierQuery(machine.id))
  const identified = useQuery(identifyStageQuery(machine.id))
  const opened = useQuery(openedUpQuery(machine.id))
  const condition = useQuery(conditionQuery(machine.id))
  const error = assemblies.error ?? dossier.error
  const reckoning = useReckoning({ machine: machine.id }, machine.version, assemblies.data ?? [])

  return (
    <Layout>
      <StageRail
        machineId={machine.id}
        states={{ arrive: dossier.data?.stages.arrive, 'look-over': dossier.data?.stages.lookOver,
          'take-stock': reckoning.machine?.stage, identify: identified.data, 'open-up': opened.data?.stage,
            judge: condition.data?.stage }}
      />
      <Middle>
        <MachineHead machine={machine} />
        <Boundary of={stage?.name ?? glance.name} at={wanted}>
          {wanted === glance.path ? (
            <Suspense fallback={null}><AtAGlance machine={machine} dossier={dossier.data} /></Suspense>
          ) : !stage || stage.later ? (
            <>
              <h2>{stage?.name ?? 'No such stage'}</h2>
              <LaterText sentence={stage?.later ?? 'Choose one in the rail.'} />
            </>
          ) : error ? (
            <Notice tone="stop" word="Not read.">{messageOf(error)}</Notice>
          ) : stage.path === 'take-stock' ? (
            assemblies.data && <TakeStock machine={machine} assemblies={assemblies.data} reckoning={reckoning} />
          ) : stage.path === 'identify' ? (
            assemblies.data && <Suspense fallback={null}>
              <Identify machine={machine} assemblies={assemblies.data} />
            </Suspense>
          ) : stage.path === 'open-up' ? (
            assemblies.data && <Suspense fallback={null}>
              <OpenUp machine={machine} assemblies={assemblies.data} />
            </Suspense>
          ) : stage.path === 'judge' ? (
            <Suspense fallback={null}><Judge machine={machine} /></Suspense>
          ) : (
            dossier.data && (
              <Suspense fallback={null}>
                {stage.path === 'arrive' ? <Arrive machine={machine} dossier={dossier.data} />
                  : <LookOver machine={machine} dossier={dossier.data} />}
              </Suspense>
            )
          )}
        </Boundary>
      </Middle>
      <Boundary of="The reckoning"><Reckoning assemblies={assemblies.data ?? []} reckoning={reckoning} stages={stages}
        stage={wanted === glance.path ? glance : stage} /></Boundary>
    </Layout>
  )
}

const Layout = styled.div`
  display: grid;
  grid-template-columns: 160px minmax(0, 1fr) 320px;
  min-height: calc(100vh - 49px);

  ${narrow} { grid-template-columns: minmax(0, 1fr); }
`
const Middle = styled.main`
  display: flex;
  flex-direction: column;
  gap: ${space(2)};
  min-width: 0;
  padding: ${space(2)} ${space(3)} ${space(6)};
  border-right: 1px solid ${color.line};

  @media (max-width: 600px) { padding: ${space(2)} ${space(1)}; }
  ${narrow} { border-right: none; }
`
