import { useQuery } from '@tanstack/react-query'
import { Link, useParams } from 'react-router'

import { teardownQuery, type TeardownView } from '../../../../api/openup'
import { messageOf } from '../../../../api/problem'
import { Button } from '../../../../kit/Button'
import { Notice } from '../../../../kit/Notice'
import { Page } from '../../../../kit/Page'
import { LabelPaper, OnScreen } from '../../../../kit/Paper'
import { Pattern } from './Pattern'
import { inWords } from './StepFacts'

/** Labels for the cells of a tray and for what is laid out, on paper. */
export default function TrayLabels() {
  const log = useQuery(teardownQuery(Number(useParams().teardownId)))
  if (log.error) return <Page><Notice tone="stop" word="Not read.">{messageOf(log.error)}</Notice></Page>
  return log.data ? <Labels log={log.data} /> : null
}

function Labels({ log }: { log: TeardownView }) {
  const cells = log.cells.filter(({ step }) => step > 0)
  return (
    <LabelPaper>
      <OnScreen>
        <Button $tone="main" onPress={() => { window.print() }}>Print</Button>
        <Link to={`/bench/${String(log.machineId)}/open-up`}>Back to the log</Link>
      </OnScreen>
      <h1>{log.machine}</h1>
      <p>{log.purpose}</p>
      {log.sums.aside === 0 && <p>Nothing lies aside.</p>}
      <ul>
        {cells.map((cell) => (
          <li key={cell.name}>
            <b>{cell.name}</b>
            <span>step {cell.step}: {cell.off}</span>
            <span>{cell.holds.join(', ')}</span>
          </li>
        ))}
        {log.steps.flatMap((step) => step.fasteners.map((fastener,
          i) => fastener.keeping === 'laid' && step.state === 'off' && (
          <li key={`${String(step.id)} ${String(i)}`}>
            <b>laid out</b>
            <span>step {step.n}: {step.off}</span>
            <span>{inWords(fastener)}</span>
            <Pattern points={fastener.pattern ?? []} />
          </li>
        )))}
      </ul>
    </LabelPaper>
  )
}
