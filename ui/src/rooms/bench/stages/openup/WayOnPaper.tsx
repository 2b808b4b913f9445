import { useQuery } from '@tanstack/react-query'
import { Link, useParams, useSearchParams } from 'react-router'
import styled from 'styled-components'

import { machineQuery } from '../../../../api/machines'
import { type Way, wayQuery } from '../../../../api/openup'
import { messageOf } from '../../../../api/problem'
import { Button } from '../../../../kit/Button'
import { Notice } from '../../../../kit/Notice'
import { Page } from '../../../../kit/Page'
import { OnScreen, Paper } from '../../../../kit/Paper'
import { inWords } from './StepFacts'

/** The way to a part on paper, with a box to tick at each step. */
export default function WayOnPaper() {
  const machineId = Number(useParams().machineId)
  const to = useSearchParams()[0].get('to') ?? ''
  const machine = useQuery(machineQuery(machineId))
  const ways = useQuery(wayQuery(machineId, to))
  const error = machine.error ?? ways.error
  if (error) return <Page><Notice tone="stop" word="Not read.">{messageOf(error)}</Notice></Page>
  if (!to) return <Page><Notice tone="attention" word="Which part?">Ask for the way in the stage Open up.</Notice></Page>
  if (!machine.data || !ways.data) return null
  return (
    <Paper>
      <OnScreen>
        <Button $tone="main" onPress={() => { window.print() }}>Print</Button>
        <Link to={`/bench/${String(machineId)}/open-up?way=${encodeURIComponent(to)}`}>Back to the machine</Link>
      </OnScreen>
      <h1>{machine.data.accession} {machine.data.name}: way to {to}</h1>
      {ways.data.length === 0 && <p>No procedure of the model and no log of the machine tells yet how it is taken apart.</p>}
      {ways.data.length > 0 && (
        <>
          <h2>Before the first step of anything</h2>
          <Ticks>{ways.data[0]?.first.map((one) => <li key={one}>{one}</li>)}</Ticks>
          {ways.data.map((way, i) => <One key={`${way.by} ${String(i)}`} way={way} />)}
        </>
      )}
    </Paper>
  )
}

function One({ way }: { way: Way }) {
  return (
    <section aria-label={way.by}>
      <h2>{way.by}</h2>
      <p><strong>{way.words}</strong></p>
      {way.tools.length > 0 && <p>Tools: {way.tools.join(', ')}.</p>}
      <Ticks>
        {way.steps.map(({ n, step, assumed }) => (
          <li key={n}>
            {n}. {step.off}
            <small>{[...step.fasteners.map(inWords),
              step.connectors.length > 0 && `unplug ${step.connectors.join(', ')}`,
              ...step.tabs.map((tab) => `mind: ${tab}`),
              ...(step.look ?? []).map((look) => `look at: ${look}`), step.note,
              assumed && 'nobody said what it needs: all before it are counted'].filter(Boolean)
              .map((said) => <span key={String(said)}>{said}</span>)}</small>
          </li>
        ))}
      </Ticks>
      {way.unsaid.length > 0 && <p>Needed, and no step takes it off: {way.unsaid.join(', ')}.</p>}
    </section>
  )
}

const Ticks = styled.ul`
  list-style: none;
  padding: 0;
  li { padding: 4px 0 4px 28px; break-inside: avoid; position: relative; }
  li::before { content: ''; position: absolute; left: 0; top: 7px; width: 14px; height: 14px; border: 1px solid; }
  small { display: flex; flex-direction: column; font-size: 14px; }
`
