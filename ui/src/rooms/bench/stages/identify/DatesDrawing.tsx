import styled from 'styled-components'

import type { Dated, DatedPart } from '../../../../api/identify'
import { scale, yearsBetween } from '../../../../kit/timeScale'
import { color, font, space } from '../../../../theme'

const year = (iso: string) => iso.slice(0, 4)

/** All dates of a machine over the time in which its model was made: a row for each assembly, a dot for each line of its sheet. */
export function DatesDrawing({ dated }: { dated: Dated }) {
  const { parts, result } = dated
  const days = parts.flatMap(({ from, to }) => [from, to]).filter(Boolean).sort()
  const first = days[0]
  const last = days[days.length - 1]
  if (!first || !last) return null
  const from = `${year(first)}-01-01`
  const to = `${year(last)}-12-31`
  const at = scale(from, to)
  const spread = (start: string, end: string) => ({ left: `${String(at(start || from))}%`, width: `${String(Math.max(0.4, at(end || to) - at(start || from)))}%` })
  const rows = new Map<string, DatedPart[]>()
  for (const part of parts) {
    if (part.kind !== 'date-code' && part.kind !== 'copyright') continue
    rows.set(part.assembly, [...(rows.get(part.assembly) ?? []), part])
  }
  const others = parts.filter(({ kind }) => kind === 'label' || kind === 'document')
  const window = parts.find(({ kind }) => kind === 'production-window')
  const said = [...rows].map(([assembly, own]) => `${assembly}: ${String(own.length)} dates from ${own.map((part) => part.from).sort()[0] ?? ''} on`)
  return (
    <Frame role="img" aria-label={`Dates from ${year(first)} to ${year(last)}. ${said.join('. ')}. ${result.outliers.map(({ id, verdict }) => `${id} is ${verdict}`).join(', ')}`}>
      <Names aria-hidden="true">
        {[...rows.keys()].map((name) => <Name key={name}>{name}</Name>)}
        {others.map((part) => <Name key={part.id}>{part.id}</Name>)}
        {window && <Name>Model made</Name>}
        {result.estimate && <Name><b>Built</b></Name>}
        <Name />
      </Names>
      <Track aria-hidden="true">
        {window && <Window style={spread(window.from, window.to)} />}
        {[...rows].map(([name, own]) => (
          <Row key={name}>
            {own.map((part) =>
              part.kind === 'copyright' ? (
                <Claimed key={part.id} style={spread(part.from, part.to)} title={`${part.id}: ${part.words}`} />
              ) : (
                <Dot key={part.id} data-verdict={part.verdict} style={{ left: `${String(at(part.from))}%` }} title={`${part.id} ${part.words}, ${part.from} to ${part.to}${part.verdict && `: ${part.verdict}`}`} />
              ),
            )}
          </Row>
        ))}
        {others.map((part) => <Row key={part.id}><Said style={spread(part.from, part.to)} title={part.words} /></Row>)}
        {window && <Row><Made style={spread(window.from, window.to)} title={window.words} /></Row>}
        {result.estimate && <Row><Built style={spread(result.estimate.from, result.estimate.to)} /></Row>}
        <Years>{yearsBetween(from, to).map((one) => <span key={one} style={{ left: `${String(at(`${String(one)}-01-01`))}%` }}>{one}</span>)}</Years>
      </Track>
    </Frame>
  )
}

const row = 28

const Frame = styled.div`
  display: grid;
  grid-template-columns: minmax(110px, 180px) minmax(0, 1fr);
  gap: ${space(1)};
  padding: ${space(1)};
  border: 1px solid ${color.line};
  background: ${color.sheet};
`
const Names = styled.div`
  min-width: 0;
`
const Name = styled.div`
  height: ${row}px;
  overflow: hidden;
  font-size: 14px;
  line-height: ${row}px;
  text-overflow: ellipsis;
  white-space: nowrap;
`
const Track = styled.div`
  position: relative;
  min-width: 0;
  margin-right: ${space(1)};
`
const Row = styled.div`
  position: relative;
  height: ${row}px;
  border-bottom: 1px dotted ${color.line};
`
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
  &[data-verdict='later'], &[data-verdict='earlier'] { border-radius: 0; background: ${color.amber}; transform: rotate(45deg); }
`
const band = `
  position: absolute;
  top: 9px;
  height: 10px;
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
const Years = styled.div`
  position: relative;
  height: 22px;
  color: ${color.faint};
  font: 12px/22px ${font.mono};
  span { position: absolute; transform: translateX(-50%); }
  span:first-child { transform: none; }
`
