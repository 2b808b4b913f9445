import styled from 'styled-components'

import type { Diagnosis } from '../../../../api/diagnosis'
import { Button } from '../../../../kit/Button'
import { Mark } from '../../../../kit/Mark'
import { Faint } from '../../../../kit/Page'
import { color, font, space } from '../../../../theme'

type Props = { judged: Diagnosis['judged']; isOpen: boolean; count: number; onTry?: (on: string[]) => void }

/** What the trials leave to explain a symptom, the trial that would tell most, and the way back to what worked. */
export function Explanations({ judged, isOpen, count, onTry }: Props) {
  const { explanations, more, confounded, next, lastGood, notes, refuted } = judged
  if (count === 0) return null
  const isNamed = (name: string) => explanations.some(({ factors }) => factors.includes(name))
  const together = confounded.filter((names) => names.some(isNamed))
  return (
    <>
      {explanations.length > 0 && <Likely aria-label="What could explain it">
        <thead><tr><th>What makes the difference</th><th aria-hidden="true" /><th>Likely</th></tr></thead>
        <tbody>{explanations.map(({ factors, makes, probability }) => (
          <tr key={`${factors.join('+')} ${makes}`}>
            <td>{factors.join(' with ')} {makes === 'ok' ? 'cures it' : 'causes it'}</td>
            <td aria-hidden="true"><Bar style={{ width: `${String(probability * 100)}%` }} /></td>
            <td>{Math.round(probability * 100)} %</td>
          </tr>
        ))}</tbody>
      </Likely>}
      {more > 0 && <p><Faint>and {more} more, each less likely</Faint></p>}
      {explanations.length === 0 && <p><Mark kind="unknown" /> {next || refuted.length === 0 ? 'No trial went otherwise yet, so nothing is explained.'
        : 'No change that is written down explains all trials: look for one that is not, or for a trial that went otherwise than it says.'}</p>}
      {together.map((names) => <p key={names.join()}><Mark kind="attention" /> Always on together, and so not told
        apart: {names.join(', ')}</p>)}
      {explanations.length > 0 && refuted.length > 0 && <p><Faint>Does not explain it: {refuted.join(', ')}</Faint></p>}
      {isOpen && next && <p><strong>Next:</strong> {next.on.length > 0 ? `with ${next.on.join(', ')} on` : 'with nothing changed'}
        : <Faint>{next.why}.</Faint>{' '}
        {onTry && <Button $small onPress={() => { onTry(next.on) }}>It was tried so</Button>}</p>}
      {isOpen && lastGood && <p><strong>Back to what worked</strong>, trial {lastGood.trial}:{' '}
        {[lastGood.takeBack.length > 0 && `take back ${lastGood.takeBack.join(', ')}`,
          lastGood.putBack.length > 0 && `put in again ${lastGood.putBack.join(', ')}`].filter(Boolean).join('; ')
          || 'nothing is changed since, and it went otherwise'}.</p>}
      {notes.map((note) => <p key={note}><Faint>{note}</Faint></p>)}
    </>
  )
}

const Likely = styled.table`
  width: 100%;
  border-collapse: collapse;
  th { color: ${color.faint}; font-size: 13px; font-weight: 400; text-align: left; }
  td { padding: 2px ${space(1)} 2px 0; vertical-align: top; }
  td:nth-child(2) { width: 160px; }
  td:last-child { width: 1%; font: 14px/24px ${font.mono}; text-align: right; white-space: nowrap; }
`
const Bar = styled.span`
  display: block;
  height: 14px;
  min-width: 2px;
  margin-top: 5px;
  background: ${color.slate};
`
