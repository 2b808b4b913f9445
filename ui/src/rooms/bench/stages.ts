/** The stages in the order of the work; `later` says what one that is not open yet will hold. */
export type Stage = { path: string; name: string; later?: string }

export const stages: Stage[] = [
  { path: 'arrive', name: 'Arrive' },
  { path: 'look-over', name: 'Look over' },
  { path: 'open-up', name: 'Open up' },
  { path: 'take-stock', name: 'Take stock' },
  { path: 'identify', name: 'Identify' },
  { path: 'judge', name: 'Judge' },
  { path: 'make-good', name: 'Make good',
    later: 'Make good will hold the jobs, the parts they wait for, and what was done.' },
  { path: 'power-up', name: 'Power up',
    later: 'Power up will hold what is missing before power may be thought of, and the ladder of steps.' },
  { path: 'set-up', name: 'Set up',
    later: 'Set up will hold slots, jumpers, memory banks and what is missing to run a program.' },
  { path: 'keep', name: 'Keep', later: 'Keep will hold storage, checks that fall due, loans, labels and reports.' },
]
