import styled, { keyframes } from 'styled-components'

import { useIsConnected } from '../data/connection'
import { color, space } from '../theme'

type Props = { what: string; lines?: number; tall?: number }

/** Keeps the place of what is still to come, so that nothing jumps when it is there. */
export function Skeleton({ what, lines = 6, tall = 24 }: Props) {
  if (!useIsConnected()) return <p role="status">{what} was not seen on this device before, and there is no connection.</p>
  return (
    <Box role="status" aria-label={`${what} is coming`}>
      {Array.from({ length: lines }, (_, i) => <Line key={i} $tall={tall} $width={92 - ((i * 37) % 45)} />)}
    </Box>
  )
}

const breathe = keyframes`50% { opacity: 0.5; }`

const Box = styled.div`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  animation: ${breathe} 1.6s ease-in-out 0.3s infinite;
  @media (prefers-reduced-motion: reduce) { animation: none; }
`
const Line = styled.span<{ $tall: number; $width: number }>`
  width: ${({ $width }) => String($width)}%;
  height: ${({ $tall }) => String($tall)}px;
  background: ${color.line};
  opacity: 0.5;
`
