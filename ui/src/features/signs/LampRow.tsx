import styled from 'styled-components'

import { color } from '../../theme'

/** How a lamp is, by the character that stands for it. */
export const lampWords: Record<string, string> = { 0: 'dark', 1: 'lit', '*': 'blinking', '?': 'any' }

/** A row of lamps as it sits, each with its name where it has one. */
export function LampRow({ lit, names }: { lit: string; names: string[] }) {
  const lamps = [...lit]
  return (
    <Row role="img" aria-label={lamps.map((is, i) => `${names[i] ?? `lamp ${String(i + 1)}`} ${lampWords[is] ?? is}`)
      .join(', ')}>
      {lamps.map((is, i) => (
        <span key={i}>
          <Lamp is={is} />
          {names[i] && <small>{names[i]}</small>}
        </span>
      ))}
    </Row>
  )
}

/** One lamp: filled when it is lit, hollow when dark, dashed when either will do, with rays when it blinks. */
export function Lamp({ is }: { is: string }) {
  return (
    <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
      <circle cx="9" cy="9" r="5" fill={is === '1' || is === '*' ? color.amber : 'none'} stroke={color.ink}
        strokeDasharray={is === '?' ? '2 2' : undefined} />
      {is === '*' && <path d="M9 0v3M9 15v3M0 9h3M15 9h3" stroke={color.ink} strokeWidth="1.5" />}
    </svg>
  )
}

const Row = styled.span`
  display: inline-flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  > span { display: inline-flex; flex-direction: column; align-items: center; }
  small { font-size: 13px; color: ${color.faint}; }
`
