import { useQuery } from '@tanstack/react-query'
import { Suspense, useEffect } from 'react'
import { useParams } from 'react-router'
import styled from 'styled-components'

import type { Machine } from '../../api/machines'
import { messageOf } from '../../api/problem'
import { Boundary } from '../../kit/Boundary'
import { Notice } from '../../kit/Notice'
import { PartIndex } from '../../kit/PartIndex'
import { Skeleton } from '../../kit/Skeleton'
import { usePageTitle } from '../../kit/pageTitle'
import { Reckoning } from '../../features/reckoning/Reckoning'
import { useReckoning } from '../../features/reckoning/useReckoning'
import { color, narrow, space } from '../../theme'
import { LaterText } from './LaterText'
import { MachineHead } from './MachineHead'
import { StageRail } from './StageRail'
import { beInStage } from '../../kit/lastOnBench'
import { benchQueries, glance, type OnBench, type Stage, stages } from './stages'

/** Rail, stage and reckoning of one machine. */
export function MachineOnBench({ machine }: { machine: Machine }) {
  const wanted = useParams().stage
  const stage = [glance, ...stages].find(({ path }) => path === wanted)
  usePageTitle(`${machine.accession} ${machine.name} - ${stage?.name ?? 'no such stage'}`)
  const queries = benchQueries(machine.id)
  const assemblies = useQuery(queries.assemblies)
  const dossier = useQuery(queries.dossier)
  const known = { dossier: dossier.data, identified: useQuery(queries.identified).data,
    opened: useQuery(queries.opened).data, condition: useQuery(queries.condition).data,
    power: useQuery(queries.power).data, treatment: useQuery(queries.treatment).data,
    diagnosed: useQuery(queries.diagnosed).data }
  const error = assemblies.error ?? dossier.error
  const reckoning = useReckoning({ machine: machine.id }, machine.version, assemblies.data ?? [])
  const boards = new Set(assemblies.data?.map(({ id }) => id))
  const stagePath = stage === glance ? undefined : stage?.path
  useEffect(() => { if (stagePath) beInStage(stagePath) }, [stagePath])

  return (
    <Layout>
      <StageRail machineId={machine.id} known={{ ...known, machine: reckoning.machine }} />
      <Middle>
        <MachineHead machine={machine} power={known.power} />
        <StageName>
          <h2 data-arrive>{stage?.name ?? 'No such stage'}</h2>
          <span>{stage?.usual}</span>
        </StageName>
        {stage?.page && <PartIndex key={wanted} />}
        <Boundary of={stage?.name ?? 'This stage'} at={wanted}>
          {error ? <Notice tone="stop" word="Not read.">{messageOf(error)}</Notice>
            : <OneStage stage={stage}
              at={assemblies.data && dossier.data && { machine, assemblies: assemblies.data, dossier: dossier.data,
                reckoning }} />}
        </Boundary>
      </Middle>
      <Boundary of="The reckoning">
        <Reckoning assemblies={assemblies.data ?? []} reckoning={reckoning} stages={stages} stage={stage}
          pageOf={(id) => `/bench/${String(machine.id)}/${boards.has(id) ? 'take-stock' : 'look-over'}`} />
      </Boundary>
    </Layout>
  )
}

function OneStage({ stage, at }: { stage: Stage | undefined; at: OnBench | undefined }) {
  if (!stage?.page) return <LaterText sentence={stage?.later ?? 'Choose one in the rail.'} />
  const waiting = <Skeleton what={stage.name} lines={14} />
  return at ? <Suspense fallback={waiting}><stage.page.Page {...at} /></Suspense> : waiting
}

const Layout = styled.div`
  display: grid;
  grid-template-columns: 160px minmax(0, 1fr) 320px;
  min-height: calc(100vh - 49px);

  ${narrow} { grid-template: auto 1fr auto / minmax(0, 1fr); }
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
/** Which stage it is, and what a registrar calls it. */
const StageName = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 ${space(1)};
  h2 { font-size: 20px; color: ${color.slate}; outline: none; }
  span { color: ${color.faint}; font-size: 15px; }
`
