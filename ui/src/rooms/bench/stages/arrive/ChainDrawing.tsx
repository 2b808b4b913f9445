import styled from 'styled-components'

import type { Dossier, ToldCustody } from '../../../../api/dossier'
import { scale, yearsBetween } from '../../../../kit/timeScale'
import { color, font, space } from '../../../../theme'

/** The chain of custody as lines over the years: certain times full, possible ones light, gaps hatched. */
export function ChainDrawing({ chain, arrived }: { chain: Dossier['chain']; arrived: string }) {
  if (!chain.from || !chain.to) return null
  const at = scale(chain.from, chain.to)
  const gaps = chain.findings.filter(({ kind, from, to }) => kind === 'gap' && from && to)
  return (
    <Frame role="img" aria-label={`The past from ${chain.from.slice(0, 4)} to ${chain.to.slice(0, 4)}: ${chain.links.map((link) => `${link.roleWords} ${link.whom} ${link.dates}`).join(', ')}`}>
      <Names aria-hidden="true">
        {chain.links.map((link) => <Name key={link.id} title={`${link.roleWords} ${link.whom}`}>{link.roleWords} <b>{link.whom || 'somebody unknown'}</b></Name>)}
        <Name />
      </Names>
      <Track aria-hidden="true">
        {gaps.map(({ from, to }) => (
          <Gap key={`${String(from)}`} style={{ left: `${String(at(from ?? ''))}%`, width: `${String(at(to ?? '') - at(from ?? ''))}%` }}><span>?</span></Gap>
        ))}
        {chain.links.map((link) => <Bar key={link.id} link={link} at={at} />)}
        {arrived && <Arrived style={{ left: `${String(at(arrived))}%` }} />}
        <Years>
          {yearsBetween(chain.from, chain.to).map((year) => (
            <span key={year} style={{ left: `${String(at(`${String(year)}-01-01`))}%` }}>{year}</span>
          ))}
        </Years>
      </Track>
    </Frame>
  )
}

function Bar({ link, at }: { link: ToldCustody; at: (iso: string) => number }) {
  const { span } = link
  if (!span) return <Row />
  const left = at(span.earliest)
  const width = Math.max(1, at(span.latest) - left)
  return (
    <Row>
      <Possible style={{ left: `${String(left)}%`, width: `${String(width)}%` }} />
      {span.certainFrom && span.certainTo && (
        <Certain style={{ left: `${String(at(span.certainFrom))}%`, width: `${String(Math.max(0.5, at(span.certainTo) - at(span.certainFrom)))}%` }} />
      )}
    </Row>
  )
}

const row = 28

const Frame = styled.div`
  display: grid;
  grid-template-columns: minmax(120px, 240px) minmax(0, 1fr);
  gap: ${space(1)};
  padding: ${space(1)};
  border: 1px solid ${color.line};
  background: ${color.sheet};
  @media (max-width: 600px) { grid-template-columns: 44% minmax(0, 1fr); }
`
const Names = styled.div`
  min-width: 0;
`
const Name = styled.div`
  height: ${row}px;
  font-size: 14px;
  line-height: ${row}px;
  color: ${color.faint};
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  b { color: ${color.ink}; font-weight: 600; }
`
const Track = styled.div`
  position: relative;
  min-width: 0;
`
const Row = styled.div`
  position: relative;
  height: ${row}px;
  border-bottom: 1px dotted ${color.line};
`
const Possible = styled.div`
  position: absolute;
  top: 9px;
  height: 10px;
  border: 1px solid ${color.slate};
  background: ${color.slateGround};
`
const Certain = styled.div`
  position: absolute;
  top: 9px;
  height: 10px;
  background: ${color.slate};
`
const Gap = styled.div`
  position: absolute;
  top: 0;
  bottom: 22px;
  display: grid;
  place-items: start center;
  background: repeating-linear-gradient(135deg, ${color.amberGround} 0 5px, transparent 5px 10px);
  border: 1px dashed ${color.amber};
  border-width: 0 1px;
  color: ${color.amber};
  font: 600 15px ${font.mono};
`
const Arrived = styled.div`
  position: absolute;
  top: 0;
  bottom: 22px;
  border-left: 2px solid ${color.reed};
`
const Years = styled.div`
  position: relative;
  height: 22px;
  font: 12px/22px ${font.mono};
  color: ${color.faint};
  span { position: absolute; transform: translateX(-50%); }
  span:first-child { transform: none; }
`
