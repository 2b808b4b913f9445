/**
 * The stages in the order of the work: what a registrar calls each, and the lines of the reckoning that it is about;
 * `later` says what one that is not open yet will hold.
 */
export type Stage = { path: string; name: string; usual: string; figures: string[]; later?: string }

/** The page of the machine, which goes before the stages. */
export const glance: Stage = { path: 'at-a-glance', name: 'At a glance', usual: 'dossier',
  figures: ['ram', 'rom', 'built', 'condition'] }

export const stages: Stage[] = [
  { path: 'arrive', name: 'Arrive', usual: 'acquisition and provenance', figures: ['custody'] },
  { path: 'look-over', name: 'Look over', usual: 'external inspection', figures: ['evidence', 'ports'] },
  { path: 'open-up', name: 'Open up', usual: 'disassembly', figures: ['open-connectors'] },
  { path: 'take-stock', name: 'Take stock', usual: 'components',
    figures: ['ram', 'rom', 'parts', 'unidentified', 'dates'] },
  { path: 'identify', name: 'Identify', usual: 'identification, dating',
    figures: ['built', 'dates', 'unidentified', 'fading'] },
  { path: 'judge', name: 'Judge', usual: 'condition check', figures: ['condition', 'measured', 'looks-due', 'signs'] },
  { path: 'make-good', name: 'Make good', usual: 'treatment', figures: [],
    later: 'Make good will hold the jobs, the parts they wait for, and what was done.' },
  { path: 'power-up', name: 'Power up', usual: 'first power', figures: [],
    later: 'Power up will hold what is missing before power may be thought of, and the ladder of steps.' },
  { path: 'set-up', name: 'Set up', usual: 'configuration', figures: [],
    later: 'Set up will hold slots, jumpers, memory banks and what is missing to run a program.' },
  { path: 'keep', name: 'Keep', usual: 'storage and care', figures: [], later: 'Keep will hold storage, checks that fall due, loans, labels and reports.' },
]
