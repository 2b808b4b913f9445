import styled from 'styled-components'

import type { Dossier, CustodyView } from '../../../../api/dossier'
import { band, TimeFrame, TimeName, TimeNames, TimeRow, TimeTrack, TimeYears } from '../../../../kit/TimeRows'
import { scale } from '../../../../kit/timeScale'
import { color, font } from '../../../../theme'

/** The chain of custody as lines over the years: certain times full, possible ones light, gaps hatched. */
export function ChainDrawing({ chain, arrived }: { chain: Dossier['chain']; arrived: string }) {
  if (!chain.from || !chain.to) return null
  const at = scale(chain.from, chain.to)
  const gaps = chain.problems.filter(({ kind, from, to }) => kind === 'gap' && from && to)
  return (
    <TimeFrame role="img"
      aria-label={`The past from ${chain.from.slice(0, 4)} to ${chain.to.slice(0, 4)}: ${chain.links.map((link) =>
        `${link.roleWords} ${link.whom} ${link.dates}`).join(', ')}`}>
      <TimeNames aria-hidden="true">
        {chain.links.map((link) => <TimeName key={link.id} title={`${link.roleWords} ${link.whom}`}>{link.roleWords} <b>
          {link.whom || 'somebody unknown'}
        </b></TimeName>)}
        <TimeName />
      </TimeNames>
      <TimeTrack aria-hidden="true">
        {gaps.map(({ from, to }) => (
          <Gap key={`${String(from)}`}
            style={{ left: `${String(at(from ?? ''))}%`, width: `${String(at(to ?? '') - at(from ?? ''))}%` }}><span>
              ?
            </span></Gap>
        ))}
        {chain.links.map((link) => <Bar key={link.id} link={link} at={at} />)}
        {arrived && <Arrived style={{ left: `${String(at(arrived))}%` }} />}
        <TimeYears from={chain.from} to={chain.to} at={at} />
      </TimeTrack>
    </TimeFrame>
  )
}

function Bar({ link, at }: { link: CustodyView; at: (iso: string) => number }) {
  const { span } = link
  if (!span) return <TimeRow />
  const left = at(span.earliest)
  const width = Math.max(1, at(span.latest) - left)
  return (
    <TimeRow>
      <Possible style={{ left: `${String(left)}%`, width: `${String(width)}%` }} />
      {span.certainFrom && span.certainTo && (
        <Certain
          style={{ left: `${String(at(span.certainFrom))}%`,
            width: `${String(Math.max(0.5, at(span.certainTo) - at(span.certainFrom)))}%` }} />
      )}
    </TimeRow>
  )
}

const Possible = styled.div`
  ${band}
  border: 1px solid ${color.slate};
  background: ${color.slateGround};
`
const Certain = styled.div`
  ${band}
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
