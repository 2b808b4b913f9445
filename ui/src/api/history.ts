import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query'

import { api, ask, historyKey, type Schemas } from './client'

export type EventView = Schemas['EventView']
export type Difference = Schemas['Difference']

/**
 * What a history is of: a machine with all that is or was fitted in it, one assembly, an arrival with its things, or
 * the whole collection.
 */
export type HistoryOf = { machine: number } | { assembly: number } | { lot: number } | 'collection'

function askHistory(of: HistoryOf, before: number) {
  if (of === 'collection') return api.GET('/api/history', { params: { query: { before } } })
  if ('machine' in of)
    return api.GET('/api/machines/{id}/history', { params: { path: { id: of.machine }, query: { before } } })
  if ('lot' in of) return api.GET('/api/lots/{id}/history', { params: { path: { id: of.lot }, query: { before } } })
  return api.GET('/api/assemblies/{id}/history', { params: { path: { id: of.assembly }, query: { before } } })
}

/** A history page by page, the newest first. */
export const historyQuery = (of: HistoryOf) =>
  infiniteQueryOptions({
    queryKey: [...historyKey, of],
    queryFn: ({ pageParam }) => ask(askHistory(of, pageParam)),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next || undefined,
    staleTime: 0,
  })

export const revisionsQuery = (assemblyId: number, newest: number) =>
  queryOptions({
    queryKey: ['revisions', assemblyId, newest],
    queryFn: () =>
      ask(api.GET('/api/assemblies/{id}/revisions', { params: { path: { id: assemblyId }, query: { limit: 100 } } })),
  })

export const differenceQuery = (assemblyId: number, from: number, to: number) =>
  queryOptions({
    queryKey: ['difference', assemblyId, from, to],
    queryFn: () =>
      ask(api.GET('/api/assemblies/{id}/difference', { params: { path: { id: assemblyId }, query: { from, to } } })),
    staleTime: Infinity,
  })

/** Positions of a board where one part came after another. */
export const occupantsQuery = (assemblyId: number, revision: number) =>
  queryOptions({
    queryKey: ['occupants', assemblyId, revision],
    queryFn: () => ask(api.GET('/api/assemblies/{id}/occupants', { params: { path: { id: assemblyId } } })),
  })
