import { useQuery } from '@tanstack/react-query'
import { useEffect } from 'react'
import { Link, useParams } from 'react-router'

import { machineQuery } from '../../api/machines'
import { messageOf, ProblemError } from '../../api/problem'
import { Notice } from '../../kit/Notice'
import { Page, Title } from '../../kit/Page'
import { Skeleton } from '../../kit/Skeleton'
import { putOnBench } from '../../kit/lastOnBench'
import { MachineOnBench } from './MachineOnBench'

/** The machine in hand. */
export default function Bench() {
  const machineId = Number(useParams().machineId)
  const machine = useQuery(machineQuery(machineId))
  const gone = machine.error instanceof ProblemError && machine.error.status >= 400 && machine.error.status < 500

  useEffect(() => { putOnBench(gone ? undefined : machineId) }, [machineId, gone])

  if (machine.data) return <MachineOnBench key={machineId} machine={machine.data} />
  if (machine.isPending) return <Page><Skeleton what="The machine" lines={14} /></Page>
  return (
    <Page>
      <Title>Bench</Title>
      {gone ? (
        <p>There is no such machine. Take one from the <Link to="/collection">collection</Link>.</p>
      ) : (
        <Notice tone="stop" word="Not read.">{messageOf(machine.error)}</Notice>
      )}
    </Page>
  )
}
