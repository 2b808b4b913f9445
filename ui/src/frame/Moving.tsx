import { useNavigation } from 'react-router'
import styled, { keyframes } from 'styled-components'

import { color } from '../theme'

/** A line at the top of the page while a move waits for what comes. */
export function Moving() {
  const isMoving = useNavigation().state === 'loading'
  return isMoving ? <Line role="progressbar" aria-label="The next page is coming" /> : null
}

// Nothing is shown of a move that takes no time.
const grow = keyframes`from, 20% { transform: scaleX(0); } to { transform: scaleX(1); }`

const Line = styled.div`
  position: fixed;
  inset: 0 0 auto;
  z-index: 9;
  height: 3px;
  background: ${color.slate};
  transform-origin: left;
  animation: ${grow} 1s ease-out forwards;
  @media (prefers-reduced-motion: reduce) { animation: none; }
`
