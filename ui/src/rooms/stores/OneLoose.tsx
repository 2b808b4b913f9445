import { useQuery } from '@tanstack/react-query'
import { Link, Navigate, useParams } from 'react-router'
import styled from 'styled-components'

import { assemblyQuery, type FittedAssembly } from '../../api/assemblies'
import { assemblyArrivalQuery } from '../../api/lots'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { Notice } from '../../kit/Notice'
import { Page, Title } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { Skeleton } from '../../kit/Skeleton'
import { Serves } from '../../features/peripherals/Serves'
import { SharedIdentifiersOf } from '../../features/sharedidentifiers/SharedIdentifiers'
import { Identification } from '../../features/identifications/Identification'
import { Reckoning } from '../../features/reckoning/Reckoning'
import { useReckoning } from '../../features/reckoning/useReckoning'
import { useShowSpot } from '../../features/reckoning/useShowSpot'
import { narrow } from '../../theme'
import { Board } from '../bench/stages/takestock/Board'
import { BoardFindings } from './BoardFindings'

/** One assembly that is in no machine: its sheet, its past, and the way back into one. */
export default function OneLoose() {
  const id = Number(useParams().assemblyId)
  const assembly = useQuery(assemblyQuery(id))
  if (assembly.isPending) return <Page><Skeleton what="The thing in store" lines={14} /></Page>
  if (!assembly.data) {
    return <Page><Title>Stores</Title><Notice tone="stop" word="Not read.">{messageOf(assembly.error)}</Notice></Page>
  }
  if (assembly.data.machineId) return <Navigate to={`/bench/${String(assembly.data.machineId)}/take-stock`} replace />
  if (assembly.data.isVoided) {
    return <Page><Title>{assembly.data.title}</Title>
      <p>It was entered by mistake and is deleted. The <Link to="/diary">diary</Link> can bring it back.</p></Page>
  }
  return <Loose key={id} assembly={assembly.data} />
}

function Loose({ assembly }: { assembly: FittedAssembly }) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const came = useQuery(assemblyArrivalQuery(assembly.id))
  const reckoning = useReckoning({ assembly: assembly.id }, 0, [assembly])
  useShowSpot(reckoning.show)
  return (
    <Beside>
      <Page>
        <Title named={assembly.title}><Link to="/stores">Stores</Link></Title>
        {came.data?.lot && (
          <p>
            Came with <Link to={`/collection/arrivals/${String(came.data.lot.id)}`}>{came.data.lot.title}</Link>
              {came.data.lot.arrived && `, ${came.data.lot.arrived}`}
            {came.data.thing?.share
              && `; its share of the cost is ${came.data.thing.share} ${came.data.lot.currency ?? ''}`}
          </p>
        )}
        <SharedIdentifiersOf of={{ kind: 'assembly', id: assembly.id }} />
        <Board assembly={assembly} reckonedBoard={reckoning.board(assembly.id)} reckonedText={reckoning.textOf(assembly.id)}
        setDraft={reckoning.setDraft} onShow={reckoning.onShow} mayWrite={mayWrite} startHere={false} />
        <Serves assemblyId={assembly.id} mayWrite={mayWrite} />
        <BoardFindings assemblyId={assembly.id} mayWrite={mayWrite} />
        <Part title="What could it be" faint="Explanations against evidence"><Identification assemblyId={assembly.id} /></Part>
      </Page>
      <Reckoning assemblies={[assembly]} reckoning={reckoning}
        pageOf={() => `/stores/${String(assembly.id)}`} />
    </Beside>
  )
}

const Beside = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  ${narrow} { grid-template-columns: minmax(0, 1fr); }
`
