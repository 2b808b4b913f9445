import { queryOptions, replaceEqualDeep } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'

export type ReckonedMachine = Schemas['ReckonedMachine']
export type ReckonedBoard = Schemas['ReckonedBoard']
export type Verdict = Schemas['ReckonedVerdict']
export type Spot = Schemas['ReckonedSpot']
export type LineState = Schemas['ReckonedLine']
export type SheetRecord = Schemas['SheetRecord']
export type DeviceType = Schemas['Type']
export type Reckoned = Schemas['Reckoned']
export type Draft = Schemas['Draft']

/** What is reckoned: a machine, or an assembly that is in none. */
export type Subject = { machine: number } | { assembly: number }

const last = new Map<string, unknown>()

/** What is equal to the answer before stays the same object, so that only what changed is drawn anew. */
function sharedWithLast<Answer>(subject: string, answer: Answer): Answer {
  const shared = replaceEqualDeep(last.get(subject), answer) as Answer
  last.clear() // of one subject at a time
  last.set(subject, shared)
  return shared
}

/** What a subject amounts to with the drafts; `stamp` changes with all else that counts. */
export const reckoningQuery = (subject: Subject, drafts: Draft[], stamp: string) =>
  queryOptions({
    queryKey: ['reckoning', subject, stamp, drafts],
    queryFn: async ({ signal }) => sharedWithLast(JSON.stringify(subject), {
      ...(await ask(
        'machine' in subject
          ? api.POST('/api/machines/{id}/reckoning', { params: { path: { id: subject.machine } }, body: { drafts },
            signal })
          : api.POST('/api/assemblies/{id}/reckoning', { params: { path: { id: subject.assembly } }, body: { drafts },
            signal }),
      )),
      // Which texts this speaks of: by the time it arrives, others may stand in the editors.
      of: drafts,
    }),
    placeholderData: (previous) => previous,
    gcTime: 0,
    staleTime: Infinity,
  })

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
