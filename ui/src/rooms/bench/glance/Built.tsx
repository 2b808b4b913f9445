import styled from 'styled-components'

import type { Glance } from '../../../api/glance'
import { Faint } from '../../../kit/Page'
import { band, TimeFrame, TimeName, TimeNames, TimeRow, TimeTrack, TimeYears } from '../../../kit/TimeRows'
import { scale } from '../../../kit/timeScale'
import { color } from '../../../theme'

const placed: Record<Glance['built']['placed'], string> = { within: 'while the model was made',
  before: 'before the model was made', after: 'after the model was made', partly: 'perhaps not while the model was made',
  unknown: '' }

/** When the machine was built, over the time in which its model was made. */
export function Built({ built }: { built: Glance['built'] }) {
  const days = [built.madeFrom, built.madeTo, ...built.spans.flatMap(({ from, to }) => [from, to])]
    .filter((day) => day !== null).sort()
  const first = days[0]
  const last = days.at(-1)
  if (!first || !last) return <p><Faint>Nothing tells yet when it was built: date codes, a plate or a paper.</Faint></p>
  const from = `${first.slice(0, 4)}-01-01`
  const to = `${last.slice(0, 4)}-12-31`
  const at = scale(from, to)
  const reach = (start: string, end: string) =>
    ({ left: `${String(at(start))}%`, width: `max(${String(at(end) - at(start))}%, 6px)` })
  const said = built.spans.map((span) => `${span.from} to ${span.to}`).join(', or ')
  return (
    <>
      <TimeFrame aria-hidden="true">
        <TimeNames>
          {built.madeFrom && built.madeTo && <TimeName>model made {built.made}</TimeName>}
          <TimeName><b>this one</b></TimeName>
        </TimeNames>
        <TimeTrack>
          {built.madeFrom && built.madeTo && <TimeRow><Span $tone="slateGround"
            style={reach(built.madeFrom, built.madeTo)} /></TimeRow>}
          <TimeRow>
            {built.spans.map((span) => <Span key={span.from} style={reach(span.from, span.to)}
              $tone={built.placed === 'within' || built.placed === 'unknown' ? 'slate' : 'amber'} />)}
          </TimeRow>
          <TimeYears from={from} to={to} at={at} />
        </TimeTrack>
      </TimeFrame>
      <p>{said ? `Built ${said}${placed[built.placed] && `, ${placed[built.placed]}`}.`
        : 'When it was built is not known yet.'}</p>
    </>
  )
}

const Span = styled.span<{ $tone: 'slate' | 'amber' | 'slateGround' }>`
  ${band}
  background: ${({ $tone }) => color[$tone]};
  border: 1px solid ${color.slate};
`
