import { Link } from 'react-router'
import styled from 'styled-components'

import type { ModelPage } from '../../../api/identify'
import { Faint } from '../../../kit/Page'
import { band, TimeFrame, TimeName, TimeNames, TimeRow, TimeTrack, TimeYears } from '../../../kit/TimeRows'
import { scale } from '../../../kit/timeScale'
import { color } from '../../../theme'

const placedWords: Record<ModelPage['built'][number]['placed'], string> = { within: 'while it was made',
  before: 'before it was made', after: 'after it was made', partly: 'perhaps not while it was made', unknown: '' }

/** When the machines of a model were built, over the time in which it was made. */
export function BuiltDrawing({ model }: { model: ModelPage }) {
  const days = [model.madeFrom, model.madeTo, ...model.built.flatMap(({ from, to }) => [from, to])]
    .filter((day) => day !== null).sort()
  const from = days[0]
  const to = days.at(-1)
  const at = from && to ? scale(`${from.slice(0, 4)}-01-01`, `${to.slice(0, 4)}-12-31`) : () => 0
  return (
    <TimeFrame>
      <TimeNames>
        <TimeName>{model.made ? `made ${model.made}` : 'when it was made is not known'}</TimeName>
        {model.built.map((one) => <TimeName key={one.id}>
          <Link to={`/bench/${String(one.id)}/identify`}>{one.accession}</Link> {one.name}</TimeName>)}
        {model.more && <TimeName>and more</TimeName>}
      </TimeNames>
      <TimeTrack>
        <TimeRow>{model.madeFrom && model.madeTo && <Span $tone="slateGround" style={reach(model.madeFrom, model.madeTo,
          at)} />}</TimeRow>
        {model.built.map((one) => (
          <TimeRow key={one.id}>
            {one.from && one.to ? <Span $tone={one.placed === 'within' || one.placed === 'unknown' ? 'slate' : 'amber'}
              style={reach(one.from, one.to, at)} title={`${one.from} to ${one.to}`} />
              : <Faint>not dated yet</Faint>}
            <span className="only-read">{one.from && one.to && `built ${one.from} to ${one.to}, ${placedWords[one.placed]}`}
            </span>
          </TimeRow>
        ))}
        {from && to && <TimeYears from={`${from.slice(0, 4)}-01-01`} to={`${to.slice(0, 4)}-12-31`} at={at} />}
      </TimeTrack>
    </TimeFrame>
  )
}

/** A stretch is drawn wide enough to be seen. */
const reach = (from: string, to: string, at: (day: string) => number) =>
  ({ left: `${String(at(from))}%`, width: `max(${String(at(to) - at(from))}%, 6px)` })

const Span = styled.span<{ $tone: 'slate' | 'amber' | 'slateGround' }>`
  ${band}
  background: ${({ $tone }) => color[$tone]};
  border: 1px solid ${color.slate};
`
