import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, historyChanged, queryClient, type Schemas } from './client'
import { touched } from './touched'

export type FittedAssembly = Schemas['FittedAssembly']
export type AssemblyFields = Schemas['AssemblyInput']
export type Revision = Schemas['Revision']

export type AssemblyKind = NonNullable<AssemblyFields['kind']>

export const assembliesKey = ['assemblies']

export const assembliesQuery = (machineId: number) =>
  queryOptions({
    queryKey: [...assembliesKey, 'in', machineId],
    queryFn: () => ask(api.GET('/api/machines/{id}/assemblies', { params: { path: { id: machineId } } })),
  })

/** One assembly with its sheet, wherever it is. */
export const assemblyQuery = (id: number) =>
  queryOptions({
    queryKey: [...assembliesKey, id],
    queryFn: () => ask(api.GET('/api/assemblies/{id}', { params: { path: { id } } })),
  })

const onBench = {
  onSuccess: () => {
    touched('board')
    // The board stands on the bench before its form is gone.
    return queryClient.invalidateQueries({ queryKey: assembliesKey })
  },
}

export function useAddAssembly(machineId: number) {
  return useMutation({
    mutationFn: (body: AssemblyFields) =>
      ask(api.POST('/api/machines/{id}/assemblies', { params: { path: { id: machineId } }, body })),
    ...onBench,
  })
}

export function useTakeOverSheet(machineId: number) {
  return useMutation({
    mutationFn: (text: string) =>
      ask(api.POST('/api/machines/{id}/sheets', { params: { path: { id: machineId } }, body: { text } })),
    ...onBench,
  })
}

export function useChangeAssembly(id: number) {
  return useMutation({
    mutationFn: (body: AssemblyFields & { version: number }) =>
      ask(api.PUT('/api/assemblies/{id}', { params: { path: { id } }, body })),
    ...onBench,
  })
}

export function saveSheet(id: number, base: number, body: string): Promise<Revision> {
  return ask(api.PUT('/api/assemblies/{id}/sheet', { params: { path: { id } }, body: { base, body } }))
}

/** Puts a kept revision where the bench shows it, so that it need not be asked for again. */
export function noteRevision({ id, machineId }: FittedAssembly, { n, body }: Revision) {
  historyChanged()
  touched('sheet')
  const noted = (assembly: FittedAssembly) => (assembly.id === id ? { ...assembly, revision: n, body } : assembly)
  if (machineId) queryClient.setQueryData(assembliesQuery(machineId).queryKey, (assemblies) => assemblies?.map(noted))
  queryClient.setQueryData(assemblyQuery(id).queryKey, (assembly) => assembly && noted(assembly))
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
