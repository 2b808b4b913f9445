import styled from 'styled-components'

import { Mark } from '../../../kit/Mark'
import { color, space } from '../../../theme'

/** What a stage still asks for, in one folded list: it is a reminder, not an alarm. */
export function Left({ words, left }: { words: string; left: string[] }) {
  if (left.length === 0) return <Line><Mark kind="done" /> All of it is written down.</Line>
  return (
    <Box>
      <summary><Mark kind="working" /> {words}: {left.length}</summary>
      <ul>{left.map((one) => <li key={one}>{one}</li>)}</ul>
    </Box>
  )
}

const Line = styled.p`
  color: ${color.faint};
  svg { vertical-align: -3px; }
`
const Box = styled.details`
  color: ${color.faint};
  summary { cursor: pointer; min-height: 28px; }
  summary:focus-visible { outline: 2px solid ${color.slate}; }
  svg { vertical-align: -3px; }
  ul { padding: 4px ${space(4)}; }
  li { list-style: disc; overflow-wrap: anywhere; }
`
