import { keepPreviousData, infiniteQueryOptions, queryOptions, useMutation } from '@tanstack/react-query'

import { offerUndo } from './undo'
import { api, ask, type Schemas } from './client'
import { touched } from './touched'

export type Move = Schemas['MoveInput']
export type LooseAssembly = Schemas['LooseAssembly']

const looseKey = ['loose']

/** Assemblies that are in no machine, page by page. */
export const looseQuery = (search: string) =>
  infiniteQueryOptions({
    queryKey: [...looseKey, search],
    queryFn: ({ pageParam: after }) => ask(api.GET('/api/assemblies', { params: { query: { search, after } } })),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next || undefined,
    placeholderData: keepPreviousData,
  })

/** Where an assembly is and was; `version` changes with every move. */
export const fittingsQuery = (assemblyId: number, version: number) =>
  queryOptions({
    queryKey: ['fittings', assemblyId, version],
    queryFn: () => ask(api.GET('/api/assemblies/{id}/fittings', { params: { path: { id: assemblyId } } })),
  })

/** What was in a machine and is not any more. */
export const pastBoardsQuery = (machineId: number) =>
  queryOptions({ queryKey: ['past boards', machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/past-boards', { params: { path: { id: machineId } } })) })

/** Notes that an assembly was in a machine before. */
export function useTellPastFitting(assemblyId: number) {
  return useMutation({
    mutationFn: (body: Schemas['PastFittingInput']) =>
      ask(api.POST('/api/assemblies/{id}/past-fittings', { params: { path: { id: assemblyId } }, body })),
    onSuccess: ({ assembly, event, where }) => {
      moved()
      offerUndo({ event, words: `${assembly.title} was in ${where}.` })
    },
  })
}

/** What is somewhere else than before changes lists and sums. */
function moved() {
  touched('move')
}

export function useMove(assemblyId: number) {
  return useMutation({
    mutationFn: (body: Move) =>
      ask(api.POST('/api/assemblies/{id}/moves', { params: { path: { id: assemblyId } }, body })),
    onSuccess: ({ assembly, event, where }) => {
      moved()
      offerUndo({ event, words: `${assembly.title} is moved: ${where}.` })
    },
  })
}

export function useAddLoose() {
  return useMutation({
    mutationFn: (body: Schemas['LooseInput']) => ask(api.POST('/api/assemblies', { body })),
    onSuccess: moved,
  })
}

export function useVoid(assemblyId: number) {
  return useMutation({
    mutationFn: (version: number) =>
      ask(api.POST('/api/assemblies/{id}/void', { params: { path: { id: assemblyId } }, body: { version } })),
    onSuccess: ({ assembly, event }) => {
      moved()
      offerUndo({ event, words: `${assembly.title} is deleted.` })
    },
  })
}
