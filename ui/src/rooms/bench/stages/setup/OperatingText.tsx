import styled from 'styled-components'

import type { OperatingCard } from '../../../../api/setup'
import { space } from '../../../../theme'
import { PanelSteps } from './Lamps'
import { Numbered } from './Numbered'

/** An operating card as it is read, on the screen and on paper. */
export function OperatingText({ card }: { card: OperatingCard }) {
  const { start, stop, signOn, keys, lamps, note } = card
  return (
    <Card>
      <Steps title="Start" text={start} />
      <Steps title="Sign on" text={signOn} />
      <Steps title="Keys" text={keys} />
      {lamps.length > 0 && <section><h3>At the panel, in {card.radix}</h3><PanelSteps lamps={lamps} /></section>}
      <Steps title="Stop" text={stop} />
      {note && <p>{note}</p>}
    </Card>
  )
}

function Steps({ title, text }: { title: string; text?: string }) {
  const lines = (text ?? '').split('\n').filter((line) => line.trim())
  if (lines.length === 0) return null
  return <section><h3>{title}</h3>{lines.length === 1 ? <p>{lines[0]}</p> : <Numbered>{lines.map((line, i) => <li key={i}>{line}</li>)}</Numbered>}</section>
}

const Card = styled.div`
  display: grid;
  gap: ${space(2)};
  h3 { font-size: 16px; }
  p { overflow-wrap: anywhere; }
`
