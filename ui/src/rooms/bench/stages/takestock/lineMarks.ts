import type { LineState } from '../../../../api/reckoning'
import type { MarkKind } from '../../../../kit/Mark'

/** The mark for each state of a line. */
export const marks: Record<LineState['state'], MarkKind> = {
  recognised: 'done',
  unknown: 'unknown',
  part: 'part',
  problem: 'problem',
  text: 'text',
}
