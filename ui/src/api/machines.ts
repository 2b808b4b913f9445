import { infiniteQueryOptions, queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, queryClient, type Schemas } from './client'

export type Machine = Schemas['Machine']
export type MachineFields = Schemas['MachineFields']

const machinesKey = ['machines']

export const machinesQuery = (search: string) =>
  infiniteQueryOptions({
    queryKey: [...machinesKey, 'list', search],
    queryFn: ({ pageParam }) => ask(api.GET('/api/machines', { params: { query: { search, after: pageParam } } })),
    initialPageParam: '',
    getNextPageParam: (page) => page.next || undefined,
    placeholderData: (previous) => previous,
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

const changed = () => {
  void queryClient.invalidateQueries({ queryKey: machinesKey })
  void queryClient.invalidateQueries({ queryKey: placesQuery.queryKey })
}

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
