import type { Schemas } from '../api/client'
import { openAt } from '../kit/usePanel'
import { rooms } from './rooms'

/** Something that is done, or a place: its name, other words for it, and where it begins. */
type Deed = { name: string; words?: string; who?: 'writers' | 'keepers'; to: string }
/** Those that are done with the machine in hand; their addresses go behind the machine's. */
const machineDeeds: Deed[] = [
  { name: 'At a glance', words: 'overview dossier machine', to: 'at-a-glance' },
  { name: 'Print the dossier', words: 'paper sheets', to: 'print' },
  { name: 'Edit the record of the machine', words: 'change name serial maker', who: 'keepers',
    to: openAt('at-a-glance', 'record') },
  { name: 'History of the machine', words: 'changes who when', to: openAt('at-a-glance', 'history') },
  { name: 'Add a board', words: 'card unit assembly sheet', who: 'writers', to: openAt('take-stock', 'board') },
  { name: 'Paste a sheet with headings', words: 'import text list', who: 'writers', to: openAt('take-stock', 'sheet') },
  { name: 'Fit a board from the stores', words: 'card loose', who: 'writers', to: openAt('take-stock', 'loose') },
  { name: 'Begin a survey', words: 'inspection condition check', who: 'writers', to: 'judge#survey' },
  { name: 'Enter a survey made earlier', who: 'writers', to: openAt('judge', 'earlier survey') },
  { name: 'Note a finding', words: 'damage fault defect', who: 'writers', to: openAt('judge', 'finding') },
  { name: 'Enter a measurement', words: 'meter volts resistance reading', who: 'writers', to: 'judge#measurements' },
  { name: 'Note signs', words: 'lamps beeps screen code', who: 'writers', to: openAt('judge', 'signs') },
  { name: 'Note an adjuster', words: 'trimmer', who: 'writers', to: openAt('judge', 'adjuster') },
  { name: 'Put down a job', words: 'repair treatment mend work', who: 'writers', to: openAt('make-good', 'job') },
  { name: 'What is missing before power', words: 'gate safe switch on', to: 'power-up#gate' },
  { name: 'Say what feeds the machine', words: 'supply adapter mains plate', who: 'writers', to: openAt('power-up', 'supply') },
  { name: 'Record that power was applied', words: 'switch on first power ladder', who: 'writers',
    to: openAt('power-up', 'power') },
  { name: 'Listen to its console', words: 'serial terminal port boot', who: 'writers', to: openAt('power-up', 'listen') },
  { name: 'Paste a screen text', words: 'console boot memory test type off', who: 'writers', to: openAt('power-up', 'text') },
  { name: 'Look for the cause of a symptom', words: 'trial diagnosis fault what fixed it', who: 'writers',
    to: openAt('set-up', 'symptom') },
  { name: 'What goes into which slot', words: 'backplane cards interrupts irq conflicts move', to: 'set-up#slots' },
  { name: 'Write a configuration down', words: 'jumpers switches dip settings as found firmware setup', who: 'writers',
    to: openAt('set-up', 'configuration') },
  { name: 'What its switches mean', words: 'dip jumpers decode as found', to: 'set-up#how-it-is-set-up' },
  { name: 'Write its operating card', words: 'start stop panel lamps keys', who: 'writers', to: openAt('set-up', 'operating') },
  { name: 'Operating card for paper', words: 'how to operate', to: 'operating-card' },
  { name: 'Credentials of the machine', words: 'password login licence key', who: 'writers', to: 'set-up#credentials' },
  { name: 'Which memory modules it takes', words: 'simm population banks ram upgrade jumpers', to: 'set-up#memory-modules' },
  { name: 'Which chip failed its memory test', words: 'layout banks bits', to: 'set-up#memory' },
  { name: 'Measure a rail', words: 'volts supply load', who: 'writers', to: 'power-up#rails' },
  { name: 'Print the condition report', words: 'paper', to: 'condition-report' },
  { name: 'Begin a log of taking apart', words: 'open disassembly', who: 'writers', to: openAt('open-up', 'log') },
  { name: 'Find the way to a part', words: 'open disassembly', to: 'open-up#way-to-a-part' },
  { name: 'Print labels for the tray', words: 'screws', who: 'writers', to: 'open-up#tray' },
  { name: 'Note a statement', words: 'evidence cite', who: 'writers', to: openAt('look-over', 'statement') },
  { name: 'Add a picture of the machine', words: 'photo photograph document', who: 'writers',
    to: 'look-over#pictures-and-documents' },
  { name: 'Move the machine', words: 'location place', who: 'writers', to: openAt('arrive', 'move') },
  { name: 'Add a former owner', words: 'custody provenance hands', who: 'keepers', to: openAt('arrive', 'custody') },
  { name: 'Note personal data', words: 'former owner disk privacy', who: 'writers', to: openAt('arrive', 'personal data') },
  { name: 'Read a ROM', words: 'eprom reader chip image', who: 'writers', to: 'identify#read-only-memories' },
  { name: 'Add a peripheral', words: 'keyboard drive display serves', who: 'writers',
    to: openAt('take-stock', 'peripheral') },
]

const deeds: Deed[] = [
  ...rooms.map(({ name, path, words }) => ({ name, words, to: path })),
  { name: 'What to open first', words: 'priorities due', to: '/diary/open-first' },
  { name: 'Enter a machine', words: 'new add catalogue', who: 'keepers', to: '/collection/new' },
  { name: 'Arrivals', words: 'lots acquisition', to: '/collection/arrivals' },
  { name: 'Enter a lot', words: 'new arrival acquisition', who: 'keepers', to: '/collection/arrivals/new' },
  { name: 'Add a board to the stores', words: 'loose card', who: 'writers', to: openAt('/stores', 'board') },
  { name: 'Parts in the stores', words: 'stock drawers spares components count', who: 'writers', to: '/stores/parts' },
  { name: 'Put parts into the stores', words: 'stock drawer spare component', who: 'writers',
    to: openAt('/stores/parts', 'part') },
  { name: 'What jobs need', words: 'shortages missing parts donors set aside', who: 'writers', to: '/stores/needs' },
  { name: 'Orders of parts', words: 'supplier delivery arrival', who: 'writers', to: '/stores/orders' },
  { name: 'Write down an order', words: 'supplier buy parts', who: 'writers', to: openAt('/stores/orders', 'order') },
  { name: 'Wanted and offers', words: 'looked for search buy bid auction price', who: 'writers', to: '/stores/wanted' },
  { name: 'Note an offer', words: 'buy bid auction price compare', who: 'writers', to: openAt('/stores/wanted', 'offer') },
  { name: 'Write down what is wanted', words: 'search look for alert', who: 'writers', to: openAt('/stores/wanted', 'want') },
  { name: 'Places', words: 'locations rooms shelves', to: '/stores/places' },
  { name: 'Rounds', words: 'walk upkeep batteries due', to: '/diary#rounds' },
  { name: 'Rules of upkeep', words: 'every months maintenance', to: '/diary/upkeep' },
  { name: 'Write a rule of upkeep', words: 'every months maintenance', who: 'writers', to: openAt('/diary/upkeep', 'rule') },
  { name: 'Plan something', words: 'calendar day week', who: 'writers', to: openAt('/diary', 'plan') },
  { name: 'Your calendar', words: 'icalendar feed subscribe program', to: '/account#your-calendar' },
  { name: 'Policies', words: 'school restore conserve capacitors batteries decide', to: '/collection/policies' },
  { name: 'What ages', words: 'maintenance classes intervals', to: '/diary/ageing' },
  { name: 'Name a type', words: 'chip library add', who: 'writers', to: openAt('/library', 'type') },
  { name: 'Models', to: '/library/models' },
  { name: 'Add a model', words: 'new', who: 'writers', to: openAt('/library/models', 'model') },
  { name: 'Known assemblies', words: 'cards boards', to: '/library/known' },
  { name: 'Name a card', words: 'known assembly board', who: 'writers', to: openAt('/library/known', 'card') },
  { name: 'Signs and codes', words: 'lamps beeps', to: '/library/signs' },
  { name: 'Procedures', words: 'taking apart', to: '/library/procedures' },
  { name: 'ROM images', words: 'firmware versions', to: '/library/roms' },
  { name: 'Unknowns', words: 'questions unidentified', to: '/library/unknowns' },
  { name: 'People and parties', words: 'owners donors', to: '/library/people' },
  { name: 'Makers', words: 'manufacturers', to: '/library/makers' },
  { name: 'Packs', words: 'import export library', to: '/library/packs' },
  { name: 'Try a sheet', words: 'example play learn', to: '/try' },
  { name: 'Instruments', words: 'meter reader stand-in connection', to: '/instruments' },
  { name: 'Practice', words: 'learn train ladder simulated machine diagnosis exercise', to: '/practice' },
  { name: 'Account', words: 'password sessions keys', to: '/account' },
  { name: 'What is not sent', words: 'drafts unsent offline', to: '/unsent' },
]

export type Place = { key: string; text: string; more?: string; to: string; isMachines: boolean }
type Who = Pick<NonNullable<Schemas['SessionBody']['account']>, 'mayWriteSheets' | 'mayKeepTheRecord'> | null

/** The deeds and places whose names or other words have each of these words at a start, by the account's rights. */
export function deedsFor(text: string, account: Who, machine: { id: number; title: string } | undefined): Place[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  if (words.length === 0) return []
  const rank = (deed: Deed) => {
    if (deed.who === 'writers' && !account?.mayWriteSheets) return 0
    if (deed.who === 'keepers' && !account?.mayKeepTheRecord) return 0
    const name = deed.name.toLowerCase()
    if (name.startsWith(words.join(' '))) return 3
    const has = (of: string[]) => words.every((word) => of.some((one) => one.startsWith(word)))
    const names = name.split(/\s+/)
    return has(names) ? 2 : has([...names, ...(deed.words ?? '').split(' ')]) ? 1 : 0
  }
  const all = [
    ...(machine ? machineDeeds.map((deed) => ({ deed, isMachines: true })) : []),
    ...deeds.map((deed) => ({ deed, isMachines: false })),
  ]
  return all.map((one) => ({ ...one, rank: rank(one.deed) })).filter((one) => one.rank > 0)
    .sort((a, b) => b.rank - a.rank)
    .map(({ deed, isMachines }) => ({ key: `deed ${deed.name}`, text: deed.name, isMachines,
      more: isMachines ? machine?.title : undefined,
      to: isMachines ? `/bench/${String(machine?.id ?? 0)}/${deed.to}` : deed.to }))
}
