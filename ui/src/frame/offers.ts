import type { Schemas } from '../api/client'
import type { Found, Way } from '../api/quickEntry'
import { spotAddress } from '../kit/spot'

type Words = { key: string; text: string; more?: string
  /** A picture beside it; 0 for none. */
  picture?: number }
/** Somewhere to go. */
export type Goal = Words & { to: string }
/** A statement to keep; `done` says what was done once it is. */
type Statement = Words & { machineId: number; assemblyId: number; base: number; done: string; blocked?: true
  /** What is said, where that is not what was typed. */
  said?: string }

/** A measurement to keep. */
type Measuring = Words & { machineId: number; line: string }

export type Offer = Goal | Statement | Measuring
export type Offers = { title: string; items: Offer[] }

/** What is offered beside what the server found: deeds and places, types that occur, and where one went before. */
export type Beside = { deeds?: Goal[]; types?: { number: string; occurrences: number }[]; used?: Goal[]
  drawers?: Pick<Schemas['Stock'], 'id' | 'what' | 'free' | 'place'>[] }

/** Of deeds that have the words only some are shown. */
const mostDeeds = 6

/** What a line can mean, the likeliest first: that is what Enter takes. */
export function offers(words: string, found: Found, understood: Schemas['Understood'] | undefined,
  { deeds = [], types = [], used = [], drawers = [] }: Beside = {}): Offers[] {
  const said = statements(understood)
  const collection = `/collection?${new URLSearchParams({ search: words }).toString()}`
  const inCollection: Offers = {
    title: 'In the collection',
    items: found.total === 0 ? [] : [
      { key: 'collection',
        text: found.total === 1 ? 'Show 1 machine with these words'
          : `Show ${found.total.toLocaleString('en')} machines with these words`, to: collection },
      ...found.machines.map((m): Goal => ({ key: `machine ${String(m.id)}`, text: `${m.accession} ${m.name}`,
        more: [m.maker, m.model, m.place].filter(Boolean).join(' · '), to: opened(m.id), picture: m.pictureId })),
    ],
  }
  const exact = found.exact
  const usedAgain = used.filter(({ text }) => text.toLowerCase().startsWith(words.toLowerCase()))
  const doing: Offers = { title: 'Do, or go to',
    items: deeds.filter(({ to }) => !usedAgain.some((one) => one.to === to)).slice(0, mostDeeds) }
  // Whose name is typed from its start is meant rather than a machine that has the word somewhere.
  const isNamed = deeds.some(({ text }) => text.toLowerCase().startsWith(words.toLowerCase()))
  const groups: Offers[] = [
    { title: 'By its number',
      items: exact ? [{ key: 'exact', text: `${exact.accession} ${exact.name}`, more: 'Take it onto the bench',
        to: opened(exact.id) }] : [] },
    { title: 'Used last', items: usedAgain },
    ...(understood?.sure ? said : []),
    ...(isNamed ? [doing] : []),
    inCollection,
    ...(isNamed ? [] : [doing]),
    ...(understood?.sure ? [] : said),
    {
      title: 'Boards and other units',
      items: found.assemblies.map((a) => ({
        key: `assembly ${String(a.id)}`,
        text: [a.title, a.part, a.serial && `serial ${a.serial}`].filter(Boolean).join(', '),
        more: a.machineId ? `in ${a.accession} ${a.machine}` : a.lentTo ? `lent to ${a.lentTo}` : a.place,
        to: spotAddress(a.machineId, { assembly: a.id, line: 1 }),
      })),
    },
    {
      title: 'Chips and other parts',
      items: [...types.filter(({ occurrences }) => occurrences > 0).map(({ number, occurrences }): Goal => ({
        key: `type ${number}`,
        text: occurrences === 1 ? `The one occurrence of ${number}`
          : `All ${occurrences.toLocaleString('en')} occurrences of ${number}`,
        to: occurrencesOf(number) })), ...found.chips.map((c) => ({
        key: `chip ${String(c.assemblyId)} ${String(c.line)}`,
        text: `${String(c.count)} x ${c.marking}`,
        more: `${c.assembly}, line ${String(c.line)}${c.machineId ? `, in ${c.accession} ${c.machine}`
          : ', in no machine'}`,
        to: spotAddress(c.machineId, { assembly: c.assemblyId, line: c.line }),
      }))],
    },
    {
      title: 'In the stores',
      items: drawers.map(({ id, what, free, place }) => ({ key: `drawer ${String(id)}`, text: what,
        more: [`${String(free)} free`, place].filter(Boolean).join(', '),
        to: `/stores/parts?${new URLSearchParams({ search: what }).toString()}` })),
    },
  ]
  const meant = groups.filter(({ items }) => items.length > 0)
  if (meant.length > 0) return meant
  return [{ title: 'Nothing found',
    items: [{ key: 'nothing', text: 'No machine, board or chip has all of these words',
      more: 'Look through the collection with others', to: collection }] }]
}

/** The list of all lines on which a type stands. */
export const occurrencesOf = (number: string) => `/library/occurrences?${new URLSearchParams({ number }).toString()}`

/** The page of a machine. */
const opened = (machineId: number) => `/bench/${String(machineId)}`

function statements(understood: Schemas['Understood'] | undefined): Offers[] {
  const machine = understood?.machine
  if (!machine) return []
  const title = `Say of ${machine.accession} ${machine.name}`
  if (understood.note) {
    return [{ title, items: [{ key: 'note', text: understood.note, more: 'Keep as a note', machineId: machine.id,
      assemblyId: 0, base: 0, done: `Noted for ${machine.accession}.` }] }]
  }
  const { measured, happened, noteInstead } = understood
  const destinations = understood.destinations.map((destination) => statement(machine.id, destination))
  const measuring: Measuring[] = measured ? [{ key: 'measured', text: measured.line,
    more: `Measured ${measured.point}, ${measured.inWords}: ${measured.verdict}. ${measured.why.join('; ')}`,
      machineId: machine.id, line: measured.line }] : []
  const whole: Statement[] = happened ? [{ key: 'happened', text: happened, more: `Keep it of ${machine.accession}`,
    machineId: machine.id, assemblyId: 0, base: 0, done: `Kept: ${happened}.` }] : []
  const note: Statement[] = noteInstead ? [{ key: 'note', text: noteInstead, more: 'Keep as a note',
    said: `note ${noteInstead}`, machineId: machine.id, assemblyId: 0, base: 0, done: `Noted for ${machine.accession}.` }]
    : []
  return [{ title, items: measured?.sure ? [...measuring, ...destinations, ...whole, ...note]
    : [...note, ...destinations, ...whole, ...measuring] }]
}

function statement(machineId: number, destination: Way): Statement {
  const where = `${destination.title}, line ${String(destination.line)}`
  const short = (line: string) => line.replace(/\s+/g, ' ')
  const what = !destination.replaces ? 'new' : destination.leaves
    ? `out of ${short(destination.replaces)}, which leaves ${short(destination.leaves)}`
    : `in place of ${short(destination.replaces)}`
  return {
    key: `destination ${String(destination.assemblyId)}`,
    text: destination.text || destination.title,
    more: destination.blocked ? `${destination.title}: ${destination.blocked}`
      : `${where}, ${what}${destination.does ? `: ${destination.does}` : `. Taken for: ${destination.reading}`}`,
    machineId,
    assemblyId: destination.assemblyId,
    base: destination.base,
    done: `${destination.text.replace(/\s+/g, ' ')} stands on ${where}.`,
    ...(destination.blocked ? { blocked: true } : {}),
  }
}
