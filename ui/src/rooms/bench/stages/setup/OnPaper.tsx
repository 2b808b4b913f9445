import { useQuery } from '@tanstack/react-query'
import { type ReactNode } from 'react'
import { Link, useParams } from 'react-router'

import { machineQuery } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { today } from '../../../../features/history/moment'
import { Button } from '../../../../kit/Button'
import { Notice } from '../../../../kit/Notice'
import { Page } from '../../../../kit/Page'
import { OnScreen, Paper } from '../../../../kit/Paper'

/** A paper of a machine: its head, what is on it, and the way back. */
export function OnPaper({ what, children }: { what: string; children: ReactNode }) {
  const machine = useQuery(machineQuery(Number(useParams().machineId)))
  if (machine.error) return <Page><Notice tone="stop" word="Not read.">{messageOf(machine.error)}</Notice></Page>
  if (!machine.data) return null
  const { id, accession, name, place } = machine.data
  return (
    <Paper>
      <OnScreen>
        <Button $tone="main" onPress={() => { window.print() }}>Print</Button>
        <Link to={`/bench/${String(id)}/set-up`}>Back to the bench</Link>
      </OnScreen>
      <h1>{what}: {accession} {name}</h1>
      <p>{[place, today()].filter(Boolean).join(' · ')}</p>
      {children}
    </Paper>
  )
}
