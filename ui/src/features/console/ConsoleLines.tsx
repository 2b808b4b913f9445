import styled from 'styled-components'

import type { ConsoleSaid } from '../../api/console'
import { Mark } from '../../kit/Mark'
import { Faint } from '../../kit/Page'
import { color, font, radius } from '../../theme'

/** What was said, line by line, with a mark at those that say something of the machine or complain. */
export function ConsoleLines({ said, label }: { said: ConsoleSaid; label: string }) {
  if (said.lines.length === 0) return null
  const complains = new Set([...said.troubles, ...said.failures].map(({ line }) => line))
  const claims = new Set(said.claims.map(({ line }) => line))
  return (
    <Sheet aria-label={label} tabIndex={0}>
      {said.lines.map(({ number, text }) => (
        <li key={number} value={number}>
          <span>{complains.has(number) ? <><Mark kind="problem" /><span className="only-read">complains:</span></>
            : claims.has(number) ? <><Mark kind="text" /><span className="only-read">says of itself:</span></> : null}</span>
          <code>{text || ' '}</code>
        </li>
      ))}
    </Sheet>
  )
}

/** What became of listening, in a word and why, and what to look at next. */
export function ConsoleOutcome({ said }: { said: ConsoleSaid }) {
  const isBad = ['silent', 'garbage', 'stuck'].includes(said.outcome)
  return (
    <>
      <p><Mark kind={isBad || said.failures.length > 0 ? 'problem' : said.troubles.length > 0 ? 'attention' : 'done'} />{' '}
        <strong>{names[said.outcome]}</strong>: {said.why}{said.bells > 0 && `; it beeped ${String(said.bells)} times`}</p>
      {said.next && <p>{said.next}.</p>}
      {said.failures.length > 0 && <ul aria-label="Memory that failed">{said.failures.map((one) => (
        <li key={`${String(one.line)} ${one.address}`}>Memory failed at <code>{one.address}</code>
          {one.expected && <>: <code>{one.expected}</code> expected, <code>{one.actual}</code> read</>}
          {one.bits ? `, bit ${one.bits.join(', ')}` : one.expected
            && ', which bits is not told: octal and hexadecimal figures look alike here'}
          <Faint> line {one.line}</Faint></li>
      ))}</ul>}
      {said.clock && <p>Clock: {said.clock.why} <Faint>line {said.clock.line}</Faint></p>}
      {said.doubts.map((doubt) => <p key={doubt}><Faint>{doubt}</Faint></p>)}
    </>
  )
}

const names: Record<ConsoleSaid['outcome'], string> = { silent: 'Silence', garbage: 'No text', stuck: 'The line rests wrong',
  prompts: 'It waits for a line', stopped: 'It stopped within a line', text: 'Text' }

const Sheet = styled.ol`
  list-style: none;
  margin: 0;
  padding: 4px 0;
  max-height: 320px;
  overflow: auto;
  border: 1px solid ${color.line};
  border-radius: ${radius};
  background: ${color.sheet};
  li { display: grid; grid-template-columns: 3ch 20px minmax(0, 1fr); gap: 6px; padding: 0 8px; }
  li::before { content: attr(value); color: ${color.faint}; font: 13px/22px ${font.mono}; text-align: right; }
  li > span { line-height: 22px; }
  code { font: 14px/22px ${font.mono}; white-space: pre-wrap; overflow-wrap: anywhere; }
`
