import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, historyChanged, queryClient, type Schemas } from './client'

export type FittedAssembly = Schemas['FittedAssembly']
export type AssemblyFields = Schemas['AssemblyFields']
export type Revision = Schemas['Revision']

export const assembliesKey = (machineId: number) => ['assemblies', machineId]

export const assembliesQuery = (machineId: number) =>
  queryOptions({
    queryKey: assembliesKey(machineId),
    queryFn: () => ask(api.GET('/api/machines/{id}/assemblies', { params: { path: { id: machineId } } })),
  })

function onBench(machineId: number) {
  return { onSuccess: () => queryClient.invalidateQueries({ queryKey: assembliesKey(machineId) }) }
}

export function useAddAssembly(machineId: number) {
  return useMutation({
    mutationFn: (body: AssemblyFields) =>
      ask(api.POST('/api/machines/{id}/assemblies', { params: { path: { id: machineId } }, body })),
    ...onBench(machineId),
  })
}

export function useTakeOverSheet(machineId: number) {
  return useMutation({
    mutationFn: (text: string) =>
      ask(api.POST('/api/machines/{id}/sheets', { params: { path: { id: machineId } }, body: { text } })),
    ...onBench(machineId),
  })
}

export function useChangeAssembly(machineId: number, id: number) {
  return useMutation({
    mutationFn: (body: AssemblyFields & { version: number }) =>
      ask(api.PUT('/api/assemblies/{id}', { params: { path: { id } }, body })),
    ...onBench(machineId),
  })
}

export function saveSheet(id: number, base: number, body: string): Promise<Revision> {
  return ask(api.PUT('/api/assemblies/{id}/sheet', { params: { path: { id } }, body: { base, body } }))
}

/** Puts a kept revision into the list of the bench, so that it need not be asked for again. */
export function noteRevision(machineId: number, revision: Revision) {
  historyChanged()
  queryClient.setQueryData(assembliesQuery(machineId).queryKey, (assemblies) =>
    assemblies?.map((assembly) =>
      assembly.id === revision.assemblyId ? { ...assembly, revision: revision.n, body: revision.body } : assembly,
    ),
  )
}

export type Merged = Schemas['Merged']
export type Stretch = Schemas['Stretch']

/** What a text amounts to together with the revision that somebody else saved meanwhile. */
export const mergeQuery = (id: number, base: number, body: string, newest: number) =>
  queryOptions({
    queryKey: ['merge', id, base, newest, body],
    queryFn: () => ask(api.POST('/api/assemblies/{id}/merge', { params: { path: { id } }, body: { base, body } })),
    staleTime: Infinity,
    gcTime: 0,
  })
