import type { Power } from '../../api/power'
import type { MarkKind } from '../../kit/Mark'

type State = Power['state']

/** How far a machine has come, with its mark and what that means. */
export const gateStates: { state: State; name: string; means: string }[] = [
  { state: 'hold', name: 'hold', means: 'no power' },
  { state: 'supply-only', name: 'supply only', means: 'the supply alone, on a dummy load' },
  { state: 'staged', name: 'staged', means: 'the minimum, then one addition at a time' },
  { state: 'cleared', name: 'cleared', means: 'by what is recorded, nothing is missing' },
]

export const gateName = (state: State) => gateStates.find((one) => one.state === state)?.name ?? state

export const gateMark = ({ state, danger }: { state: State; danger: boolean }): MarkKind =>
  danger ? 'problem' : state === 'cleared' ? 'done' : state === 'hold' ? 'none' : 'working'
