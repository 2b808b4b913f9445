import { queryClient } from './client'

/** What is asked for of the server, by the first word of its key. */
type Kind = 'assemblies' | 'attachments' | 'collection' | 'condition' | 'dating' | 'dossier' | 'glance' | 'known' | 'library'
  | 'loose' | 'lots' | 'machines' | 'measurements' | 'meetings' | 'models' | 'mysteries' | 'next number' | 'opened up'
  | 'past boards' | 'peripherals' | 'people' | 'parties' | 'places' | 'plans' | 'procedures' | 'recognised' | 'reckoning'
  | 'console' | 'console port' | 'needs' | 'orders' | 'upkeep' | 'policies' | 'power' | 'stock' | 'treatment' | 'risks' | 'roms' | 'session' | 'signs' | 'start' | 'unknowns' | 'wiring' | 'makers' | 'own sessions' | 'names found' | 'wants' | 'offers'
  | 'diagnoses' | 'memory' | 'setup' | 'slot plan' | 'population' | 'operating card' | 'credentials'

/** Whatever is written about a machine shows on its page and on the first one. */
const ofMachine = ['glance', 'start', 'machines', 'reckoning', 'power', 'treatment', 'upkeep'] as const satisfies Kind[]

/** The one table of which deed makes what else out of date: what is here is read anew where it is shown. */
const touches = {
  /** A machine is entered, or its record changed. */
  machine: [...ofMachine, 'places'],
  /** A sheet is saved: sums, statements and what chips are for follow. */
  sheet: [...ofMachine, 'memory', 'setup', 'slot plan', 'population', 'dossier', 'mysteries', 'recognised', 'dating'],
  /** A board is added, changed or deleted. */
  board: [...ofMachine, 'setup', 'slot plan', 'population', 'assemblies', 'dating', 'roms', 'recognised', 'known', 'unknowns'],
  /** A board or machine is somewhere else. */
  move: [...ofMachine, 'setup', 'slot plan', 'population', 'assemblies', 'loose', 'past boards', 'peripherals', 'signs', 'places'],
  /** A statement, a picture, a former owner: what is known follows from it. */
  evidence: [...ofMachine, 'stock', 'dossier', 'attachments', 'meetings', 'dating'],
  /** What a machine is dated by. */
  dating: ['glance', 'start', 'dating', 'models'],
  /** A content was read, or named. */
  rom: ['glance', 'start', 'roms', 'dating', 'models'],
  /** A finding, a measurement, a look, a class of what ages. */
  judgement: [...ofMachine, 'condition', 'measurements', 'risks', 'peripherals'],
  /** Work on a machine. */
  job: [...ofMachine, 'needs', 'orders', 'stock'],
  /** A rule of upkeep, a round, a plan. */
  upkeep: ['upkeep', 'start'],
  /** Which school is chosen: other jobs follow. */
  policy: [...ofMachine, 'policies'],
  /** The address of one's calendar. */
  session: ['own sessions'],
  /** A drawer, an order, what is set aside: jobs go on, or wait. */
  stores: [...ofMachine, 'population', 'needs', 'orders', 'stock', 'places', 'offers'],
  /** What is looked for, and what is offered. */
  wanted: ['wants', 'offers', 'start'],
  /** What feeds a machine, its ladder, and that power was applied. */
  power: [...ofMachine, 'slot plan', 'measurements'],
  /** Where it is how warm and damp. */
  climate: ['condition', 'measurements', 'risks', 'peripherals', 'reckoning', 'places', 'start'],
  /** A step of a log, a connector, a procedure. */
  opening: [...ofMachine, 'opened up', 'wiring', 'procedures', 'condition'],
  /** A kind of board that the library knows. */
  known: [...ofMachine, 'setup', 'slot plan', 'known', 'recognised', 'unknowns', 'mysteries', 'wiring', 'dating', 'signs'],
  /** A board has what its kind is known for, or has not. */
  fault: [...ofMachine, 'condition', 'risks', 'known', 'recognised'],
  /** A type of chip is named or gone: every sheet may amount to something else. */
  type: [...ofMachine, 'library', 'mysteries', 'unknowns'],
  /** A guess, an answer, a name for what nobody knew. */
  unknown: [...ofMachine, 'unknowns', 'library', 'dating', 'known', 'recognised'],
  /** What a board could be. */
  identification: ['glance', 'start', 'mysteries', 'dating'],
  /** What a machine shows, or by what that is read. */
  sign: [...ofMachine, 'signs', 'unknowns'],
  /** A symptom, or what was tried to find its cause. */
  diagnosis: [...ofMachine, 'diagnoses', 'memory'],
  /** How a machine is set up and operated. */
  setup: [...ofMachine, 'setup', 'slot plan', 'population', 'operating card', 'credentials'],
  /** What its console said, or by which port that is heard. */
  console: [...ofMachine, 'console', 'console port', 'memory'],
  /** What serves a machine. */
  peripheral: [...ofMachine, 'peripherals'],
  /** A lot, or a thing of it. */
  lot: [...ofMachine, 'lots', 'next number', 'loose', 'dossier', 'attachments', 'meetings', 'dating'],
  /** A person or organisation: names stand in lots, chains and statements. */
  party: ['parties', 'lots', 'dossier', 'machines', 'start'],
  maker: ['makers'],
  /** The settings of the collection. */
  collection: ['collection', 'next number', 'session', 'power', 'reckoning'],
  account: ['people'],
} as const satisfies Record<string, Kind[]>

/** Has everything read anew that a deed touches. */
export function touched(...deeds: (keyof typeof touches)[]) {
  for (const kind of new Set<Kind>(deeds.flatMap((deed) => touches[deed])))
    void queryClient.invalidateQueries({ queryKey: [kind] })
}
