import styled from 'styled-components'

import type { Condition } from '../../../../api/judge'
import { color } from '../../../../theme'

type Grade = Condition['strip']['technical'][number]['grade']

/** A grade as a word on its ground; the edge differs as well as the colour. */
export function GradeSquare({ grade }: { grade: Grade }) {
  return <Square data-grade={grade}>{grade}</Square>
}

const Square = styled.span`
  display: inline-block;
  min-width: 92px;
  padding: 1px 6px;
  border: 1px solid ${color.edge};
  background: ${color.sheet};
  font-size: 14px;
  text-align: center;
  &[data-grade='good'] { border: 2px solid ${color.reed}; color: ${color.reed}; }
  &[data-grade='watch'] { border: 2px dashed ${color.amber}; background: ${color.amberGround}; color: ${color.amber}; }
  &[data-grade='repair'] { border: 2px solid ${color.amber}; background: ${color.amberGround}; color: ${color.amber};
    font-weight: 600; }
  &[data-grade='hazard'] { border: 3px double ${color.rust}; background: ${color.rustGround}; color: ${color.rust};
    font-weight: 700; }
  &[data-grade='not inspected'] { border-style: dotted; color: ${color.faint}; font-style: italic; }
  &[data-grade='absent'] { border-color: transparent; color: ${color.faint}; }
`
