import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query'

import { api, ask, historyKey, type Schemas } from './client'

export type Told = Schemas['Told']
export type Difference = Schemas['Difference']

/** The history of a machine, or for machine 0 of the whole collection, page by page. */
export const historyQuery = (machineId: number) =>
  infiniteQueryOptions({
    queryKey: [...historyKey, machineId],
    queryFn: ({ pageParam: before }) =>
      ask(
        machineId
          ? api.GET('/api/machines/{id}/history', { params: { path: { id: machineId }, query: { before } } })
          : api.GET('/api/history', { params: { query: { before } } }),
      ),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next || undefined,
    staleTime: 0,
  })

export const revisionsQuery = (assemblyId: number, newest: number) =>
  queryOptions({
    queryKey: ['revisions', assemblyId, newest],
    queryFn: () => ask(api.GET('/api/assemblies/{id}/revisions', { params: { path: { id: assemblyId }, query: { limit: 100 } } })),
  })

export const differenceQuery = (assemblyId: number, from: number, to: number) =>
  queryOptions({
    queryKey: ['difference', assemblyId, from, to],
    queryFn: () => ask(api.GET('/api/assemblies/{id}/difference', { params: { path: { id: assemblyId }, query: { from, to } } })),
    staleTime: Infinity,
  })
