import styled from 'styled-components'

import type { Dated, DatedPart } from '../../../../api/identify'
import { band, TimeFrame, TimeName, TimeNames, TimeRow, TimeTrack, TimeYears } from '../../../../kit/TimeRows'
import { scale } from '../../../../kit/timeScale'
import { color } from '../../../../theme'

const year = (iso: string) => iso.slice(0, 4)

/**
 * All dates of a machine over the time in which its model was made: a row for each assembly, a dot for each line of its
 * sheet.
 */
export function DatesDrawing({ dated }: { dated: Dated }) {
  const { parts, result } = dated
  const days = [...parts, ...result.estimates].flatMap(({ from, to }) => [from, to]).filter(Boolean).sort()
  const first = days[0]
  const last = days[days.length - 1]
  if (!first || !last) return null
  const from = `${year(first)}-01-01`
  const to = `${year(last)}-12-31`
  const at = scale(from, to)
  const spread = (start: string, end: string) => ({ left: `${String(at(start || from))}%`,
    width: `${String(Math.max(0.4, at(end || to) - at(start || from)))}%` })
  const rows = new Map<string, DatedPart[]>()
  for (const part of parts) {
    if (part.kind !== 'date-code' && part.kind !== 'copyright') continue
    rows.set(part.assembly, [...(rows.get(part.assembly) ?? []), part])
  }
  const others = parts.filter(({ kind }) => kind === 'label' || kind === 'document')
  const window = parts.find(({ kind }) => kind === 'production-window')
  const said = [...rows].map(([assembly, own]) =>
    `${assembly}: ${String(own.length)} dates from ${own.map((part) => part.from).sort()[0] ?? ''} on`)
  return (
    <TimeFrame role="img"
      aria-label={`Dates from ${year(first)} to ${year(last)}. ${said.join('. ')}. ${result.outliers.map(({ id,
        verdict }) => `${id} is ${verdict}`).join(', ')}`}>
      <TimeNames aria-hidden="true">
        {[...rows.keys()].map((name) => <TimeName key={name}>{name}</TimeName>)}
        {others.map((part) => <TimeName key={part.id}>{part.id}</TimeName>)}
        {window && <TimeName>Model made</TimeName>}
        {result.estimate && <TimeName><b>Built</b></TimeName>}
        <TimeName />
      </TimeNames>
      <TimeTrack aria-hidden="true">
        {window && <Window style={spread(window.from, window.to)} />}
        {[...rows].map(([name, own]) => (
          <TimeRow key={name}>
            {own.map((part) =>
              part.kind === 'copyright' ? (
                <Claimed key={part.id} style={spread(part.from, part.to)} title={`${part.id}: ${part.words}`} />
              ) : (
                <Dot key={part.id} data-verdict={part.verdict} style={{ left: `${String(at(part.from))}%` }}
                  title={`${part.id} ${part.words}, ${part.from} to ${part.to}${part.verdict
                    && `: ${part.verdict === 'left-out' ? 'left out' : part.verdict}`}`} />
              ),
            )}
          </TimeRow>
        ))}
        {others.map((part) =>
          <TimeRow key={part.id}><Said style={spread(part.from, part.to)} title={part.words} /></TimeRow>)}
        {window && <TimeRow><Made style={spread(window.from, window.to)} title={window.words} /></TimeRow>}
        {result.estimates.length > 0 && (
          <TimeRow>
            {result.estimates.map((span) => <Built key={span.from} style={spread(span.from, span.to)} />)}
          </TimeRow>
        )}
        <TimeYears from={from} to={to} at={at} />
      </TimeTrack>
    </TimeFrame>
  )
}

const Window = styled.div`
  position: absolute;
  top: 0;
  bottom: 22px;
  background: ${color.slateGround};
  opacity: 0.6;
`
const Dot = styled.span`
  position: absolute;
  top: 9px;
  width: 10px;
  height: 10px;
  margin-left: -5px;
  border: 1px solid ${color.sheet};
  border-radius: 50%;
  background: ${color.slate};
  &[data-verdict='later'], &[data-verdict='possibly-later'], &[data-verdict='earlier'] {
    border-radius: 0;
    background: ${color.amber};
    transform: rotate(45deg);
  }
  &[data-verdict='left-out'] {
    border-color: ${color.faint};
    background: ${color.sheet};
  }
`
const Claimed = styled.span`
  ${band}
  top: 12px;
  height: 4px;
  background: repeating-linear-gradient(90deg, ${color.slate} 0 3px, transparent 3px 6px);
`
const Said = styled.span`
  ${band}
  background: ${color.ink};
`
const Made = styled.span`
  ${band}
  border: 1px solid ${color.slate};
  background: ${color.slateGround};
`
const Built = styled.span`
  ${band}
  background: ${color.reed};
`
