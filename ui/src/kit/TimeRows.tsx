import styled from 'styled-components'

import { color, font, space } from '../theme'
import { yearsBetween } from './timeScale'

const row = 28

/** What lies along the years: names to the left, a row for each beside it. */
export const TimeFrame = styled.div`
  display: grid;
  grid-template-columns: minmax(110px, 240px) minmax(0, 1fr);
  gap: ${space(1)};
  padding: ${space(1)};
  border: 1px solid ${color.line};
  background: ${color.sheet};
  @media (max-width: 600px) { grid-template-columns: 44% minmax(0, 1fr); }
`
export const TimeName = styled.div`
  height: ${row}px;
  overflow: hidden;
  color: ${color.faint};
  font-size: 14px;
  line-height: ${row}px;
  text-overflow: ellipsis;
  white-space: nowrap;
  b { color: ${color.ink}; font-weight: 600; }
`
export const TimeNames = styled.div`
  min-width: 0;
`
export const TimeTrack = styled.div`
  position: relative;
  min-width: 0;
`
export const TimeRow = styled.div`
  position: relative;
  height: ${row}px;
  border-bottom: 1px dotted ${color.line};
`
/** A stretch of time in a row. */
export const band = `
  position: absolute;
  top: 9px;
  height: 10px;
`

/** The years below the rows. */
export function TimeYears({ from, to, at }: { from: string; to: string; at: (iso: string) => number }) {
  return (
    <Years>
      {yearsBetween(from, to).map((year) =>
        <span key={year} style={{ left: `${String(at(`${String(year)}-01-01`))}%` }}>{year}</span>)}
    </Years>
  )
}

const Years = styled.div`
  position: relative;
  height: 22px;
  color: ${color.faint};
  font: 12px/22px ${font.mono};
  span { position: absolute; transform: translateX(-50%); }
  span:first-child { transform: none; }
`
