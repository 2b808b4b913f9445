import { queryOptions, useMutation } from '@tanstack/react-query'

import { anythingMayDiffer, offerUndo } from './undo'
import { api, ask, type Schemas } from './client'

export type Found = Schemas['Found']
export type Way = Schemas['Destination']

export const findQuery = (words: string) =>
  queryOptions({
    queryKey: ['find', words],
    queryFn: ({ signal }) => ask(api.GET('/api/find', { params: { query: { words } }, signal })),
    enabled: words !== '',
  })

/** Drawers of the stores that have the words: a few. */
export const inStoresQuery = (words: string) => queryOptions({
  queryKey: ['find', 'stock', words],
  queryFn: ({ signal }) => ask(api.GET('/api/stock', { params: { query: { search: words, limit: 4 } }, signal })),
})

/** What a statement about a machine would do; nothing is kept. */
export const understoodQuery = (machineId: number, text: string) =>
  queryOptions({
    queryKey: ['understood', machineId, text],
    queryFn: ({ signal }) => ask(api.POST('/api/understand', { body: { machineId, text }, signal })),
    staleTime: 0,
    gcTime: 0,
  })

/** Keeps a statement; `done` says what was done, for the offer to undo it. */
export function useSay() {
  return useMutation({
    mutationFn: ({ machineId, assemblyId, base, text }: Schemas['Quick-entryRequest'] & { done: string }) =>
      ask(api.POST('/api/quick-entry', { body: { machineId, assemblyId, base, text } })),
    onSuccess: ({ event }, { done }) => {
      anythingMayDiffer()
      offerUndo({ event, words: done })
    },
  })
}
