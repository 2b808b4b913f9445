import styled from 'styled-components'

import type { SlotPlan } from '../../../../api/setup'
import { Mark } from '../../../../kit/Mark'
import { Faint } from '../../../../kit/Page'
import { color, font, space } from '../../../../theme'

const amperes = (n: number) => `${n.toFixed(2)} A`

/** What is drawn of each rail, as a bar to what it may give. */
export function Rails({ plan: { rails, undrawn } }: { plan: SlotPlan }) {
  if (rails.length === 0) return null
  return (
    <>
      <Bars aria-label="Rails">
        {rails.map(({ rail, draw, rating, headroom }) => (
          <li key={rail}>
            <b>{rail}</b>
            <Bar aria-hidden="true"><i style={{ width: `${String(rating ? Math.min(100, draw / rating * 100) : 0)}%` }}
              data-over={headroom !== null && headroom < 0 || undefined} /></Bar>
            <span>{draw === 0 ? 'nothing that is known draws on it' : amperes(draw)}{rating === null ? '; what it may give nobody said' : draw === 0 ? `; it may give ${amperes(rating)}` : ` of ${amperes(rating)}`}
              {headroom !== null && draw > 0 && (headroom < 0 ? <> <Mark kind="problem" /> {amperes(-headroom)} too much</>
                : `, ${amperes(headroom)} left`)}</span>
          </li>
        ))}
      </Bars>
      {undrawn.length > 0 && <p><Faint>What these draw nobody said, so it is more: {undrawn.join(', ')}.</Faint></p>}
    </>
  )
}

const Bars = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  li { display: flex; flex-wrap: wrap; align-items: center; gap: ${space(1)}; font-size: 15px; }
  b { width: 48px; font: 600 14px ${font.mono}; }
`
const Bar = styled.span`
  display: block;
  width: 160px;
  height: 10px;
  border: 1px solid ${color.edge};
  i { display: block; height: 100%; background: ${color.reed}; }
  i[data-over] { background: ${color.rust}; }
`
