import { keepPreviousData, queryOptions, replaceEqualDeep } from '@tanstack/react-query'

import { lineChange, withSince } from '../features/reckoning/since'
import { api, ask, type Schemas } from './client'
import { ProblemError } from './problem'

export type ReckonedMachine = Schemas['ReckonedMachine']
export type ReckonedBoard = Schemas['ReckonedBoard']
export type Verdict = Schemas['ReckonedVerdict']
export type Spot = Schemas['ReckonedSpot']
export type LineState = Schemas['ReckonedLine']
export type SheetRecord = Schemas['SheetRecord']
export type DeviceType = Schemas['Type']
export type Reckoned = Schemas['Reckoned']
export type Draft = Schemas['Draft']

/** The sheets that stand in editors, by the count of what was told of them. */
export type Turn = { turn: number; drafts: Draft[] }

/** What is reckoned: a machine, or an assembly that is in none. */
export type Subject = { machine: number } | { assembly: number }

/** The last whole answer of a subject, and the drafts that it speaks of: the next is told by what changed. */
type Answered = { subject: string; drafts: Draft[]; machine: ReckonedMachine }
let last: Answered | undefined // of one subject at a time

/**
 * What a subject amounts to with the drafts; `turn` counts the texts that were told so far, 0 where all is as it is
 * kept, and `stamp` changes with all else that counts.
 */
export const reckoningQuery = (subject: Subject, { turn, drafts }: Turn, stamp: string) =>
  queryOptions({
    queryKey: ['reckoning', subject, stamp, turn],
    queryFn: async ({ signal }) => {
      const name = JSON.stringify(subject)
      const before = last?.subject === name ? last : undefined
      const machine = await askSince(subject, before, drafts, signal) ?? shared(before,
        await ask('machine' in subject
          ? api.POST('/api/machines/{id}/reckoning', { params: { path: { id: subject.machine } }, body: { drafts },
            signal })
          : api.POST('/api/assemblies/{id}/reckoning', { params: { path: { id: subject.assembly } }, body: { drafts },
            signal })))
      last = { subject: name, drafts, machine }
      // Which texts this speaks of: by the time it arrives, others may stand in the editors.
      return { ...machine, of: drafts }
    },
    placeholderData: keepPreviousData,
    gcTime: 0,
    staleTime: Infinity,
  })

/** What is equal to the answer before stays the same object, so that only what changed is drawn anew. */
const shared = (before: Answered | undefined, machine: ReckonedMachine) =>
  replaceEqualDeep(before?.machine, machine) as ReckonedMachine

/** The answer by what changed since the one before; undefined where the whole has to be asked for. */
async function askSince(subject: Subject, before: Answered | undefined, drafts: Draft[], signal: AbortSignal) {
  if (!before?.machine.answer) return undefined
  const body = { answer: before.machine.answer, ...changesSince(before.drafts, drafts) }
  try {
    return withSince(before.machine, await ask('machine' in subject
      ? api.POST('/api/machines/{id}/reckoning/since', { params: { path: { id: subject.machine } }, body, signal })
      : api.POST('/api/assemblies/{id}/reckoning/since', { params: { path: { id: subject.assembly } }, body, signal })))
  } catch (error) {
    if (error instanceof ProblemError && error.status === 410) return undefined
    throw error
  }
}

function changesSince(before: Draft[], drafts: Draft[]) {
  const was = new Map(before.map(({ assemblyId, body }) => [assemblyId, body]))
  return {
    drafts: drafts.filter(({ assemblyId }) => !was.has(assemblyId)),
    changes: drafts.flatMap(({ assemblyId, body }) => {
      const older = was.get(assemblyId)
      return older === undefined || older === body ? [] : lineChange(assemblyId, older, body)
    }),
    kept: before.map(({ assemblyId }) => assemblyId).filter((id) => !drafts.some((one) => one.assemblyId === id)),
  }
}

/** What a text with headings would amount to; nothing is kept. */
export const dryRunQuery = (text: string) =>
  queryOptions({
    queryKey: ['dry run', text],
    queryFn: ({ signal }) => ask(api.POST('/api/reckon', { body: { text }, signal })),
    gcTime: 0,
  })

export function completions(start: string): Promise<DeviceType[]> {
  return ask(api.GET('/api/types', { params: { query: { start } } }))
}

export async function writeLine(record: SheetRecord): Promise<string> {
  return (await ask(api.POST('/api/sheet-line', { body: record }))).text
}
