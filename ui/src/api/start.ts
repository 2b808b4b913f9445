import { queryOptions } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'

export type Begun = Schemas['InHand']
export type Deadline = Schemas['Deadline']

// What is told here follows from what other keys keep: it is read again whenever one comes back.
const startKey = ['start']

export const inHandQuery = queryOptions({ queryKey: [...startKey, 'in hand'], queryFn: () => ask(api.GET('/api/in-hand')),
  staleTime: 0 })
export const deadlinesQuery = queryOptions({ queryKey: [...startKey, 'deadlines'], queryFn: () =>
  ask(api.GET('/api/deadlines')), staleTime: 0 })
export const looksAheadQuery = queryOptions({ queryKey: [...startKey, 'looks'], queryFn: () =>
  ask(api.GET('/api/looks-ahead')), staleTime: 0 })
export const findingsByYearQuery = queryOptions({ queryKey: [...startKey, 'findings'], queryFn: () =>
  ask(api.GET('/api/findings-by-year')), staleTime: 0 })
export const unknownCountsQuery = queryOptions({ queryKey: [...startKey, 'unknowns'], queryFn: () =>
  ask(api.GET('/api/unknowns/counts')), staleTime: 0 })
