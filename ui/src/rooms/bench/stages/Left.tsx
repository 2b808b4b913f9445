import styled from 'styled-components'

import { Mark } from '../../../kit/Mark'
import { color } from '../../../theme'

/** What a stage still asks for: a reminder in a line of text, not an alarm. */
export function Left({ words, left, done = 'All of it is written down.' }: { words: string; left: string[];
  done?: string }) {
  if (left.length === 0) return <Line><Mark kind="done" /> {done}</Line>
  return <Line><Mark kind="working" /> <strong>{words}:</strong> {left.join('; ')}.</Line>
}

const Line = styled.p`
  color: ${color.faint};
  font-size: 15px;
  overflow-wrap: anywhere;
  svg { vertical-align: -3px; }
`
