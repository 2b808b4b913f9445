import { keepPreviousData, infiniteQueryOptions, queryOptions, useInfiniteQuery,
  useMutation } from '@tanstack/react-query'

import { api, ask, queryClient, type Schemas } from './client'
import type { paths } from './schema.gen'
import { touched } from './touched'

export type Machine = Schemas['Machine']
export type MachineFields = Schemas['MachineInput']

const machinesKey = ['machines']

/** Filters and order of a list of machines. */
export type MachineQuery = Omit<NonNullable<paths['/api/machines']['get']['parameters']['query']>, 'after' | 'limit'>

export const machinesQuery = (query: MachineQuery) =>
  infiniteQueryOptions({
    queryKey: [...machinesKey, 'list', query],
    queryFn: ({ pageParam, signal }) =>
      ask(api.GET('/api/machines', { params: { query: { ...query, after: pageParam } }, signal })),
    initialPageParam: '',
    getNextPageParam: (page) => page.next || undefined,
    placeholderData: keepPreviousData,
  })

/** The picture by which a machine is known; 0 for none. */
export function usePictureOf(machineId: number): number {
  const { data } = useInfiniteQuery(machinesQuery({ id: [machineId] }))
  return data?.pages[0]?.machines[0]?.pictureId ?? 0
}

/** How many machines there are of each value that the list can be narrowed by. */
export const facetsQuery = ({ search, place, maker, year, stage, statement, type }: MachineQuery) =>
  queryOptions({
    queryKey: [...machinesKey, 'facets', search, place, maker, year, stage, statement, type],
    queryFn: ({ signal }) => ask(api.GET('/api/machines/facets',
      { params: { query: { search, place, maker, year, stage, statement, type } }, signal })),
    placeholderData: keepPreviousData,
  })

/** Types by the start of their number, with how many machines hold them. */
export const holdingQuery = ({ search, place, maker, year, stage, statement }: MachineQuery, start: string) =>
  queryOptions({
    queryKey: [...machinesKey, 'holding', search, place, maker, year, stage, statement, start],
    queryFn: ({ signal }) => ask(api.GET('/api/machines/holding',
      { params: { query: { search, place, maker, year, stage, statement, start } }, signal })),
    placeholderData: keepPreviousData,
  })

export const machineQuery = (id: number) =>
  queryOptions({
    queryKey: [...machinesKey, id],
    queryFn: () => ask(api.GET('/api/machines/{id}', { params: { path: { id } } })),
  })

export const placesQuery = queryOptions({
  queryKey: ['places'],
  queryFn: () => ask(api.GET('/api/places')),
})

const changed = () => { touched('machine') }

export function useCreateMachine() {
  return useMutation({
    mutationFn: (body: MachineFields) => ask(api.POST('/api/machines', { body })),
    onSuccess: changed,
  })
}

export function useChangeMachine(id: number) {
  return useMutation({
    mutationFn: (body: MachineFields & { version: number }) =>
      ask(api.PUT('/api/machines/{id}', { params: { path: { id } }, body })),
    onSuccess: (machine) => {
      queryClient.setQueryData(machineQuery(id).queryKey, machine)
      changed()
    },
  })
}
