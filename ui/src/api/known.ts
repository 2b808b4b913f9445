import { keepPreviousData, infiniteQueryOptions, queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { offerUndo } from './undo'
import { touched } from './touched'

export type KnownAssembly = Schemas['KnownAssembly']
export type KnownDetail = Schemas['KnownDetail']
export type KnownFields = Schemas['KnownInput']
export type KnownClaim = Schemas['KnownClaim']
export type Details = Schemas['Details']

export const knownKey = ['known']
const recognisedKey = ['recognised']

/** Known assemblies that hold all words, a page at a time. */
export const knownQuery = (search: string) =>
  infiniteQueryOptions({
    queryKey: [...knownKey, 'list', search],
    queryFn: ({ pageParam: after }) =>
      ask(api.GET('/api/known-assemblies', { params: { query: { search, after } } })),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next || undefined,
    placeholderData: keepPreviousData,
  })

export const oneKnownQuery = (id: number) =>
  queryOptions({ queryKey: [...knownKey, id], queryFn: () =>
    ask(api.GET('/api/known-assemblies/{id}', { params: { path: { id } } })) })

/** What an assembly is known as. */
export const recognisedQuery = (assemblyId: number) =>
  queryOptions({ queryKey: [...recognisedKey, assemblyId], queryFn: () =>
    ask(api.GET('/api/assemblies/{id}/recognised', { params: { path: { id: assemblyId } } })) })

/** What is recognised has changed, or by what. */
export function recognisedChanged() {
  touched('known')
}

export function useNameKnown() {
  return useMutation({ mutationFn: (body: KnownFields) => ask(api.POST('/api/known-assemblies', { body })),
    onSuccess: recognisedChanged })
}

export function useChangeKnown(id: number) {
  return useMutation({
    mutationFn: (body: KnownFields & { version: number }) =>
      ask(api.PUT('/api/known-assemblies/{id}', { params: { path: { id } }, body })),
    onSuccess: recognisedChanged,
  })
}

export function useStrikeKnown(id: number, name: string) {
  return useMutation({
    mutationFn: () => ask(api.DELETE('/api/known-assemblies/{id}', { params: { path: { id } } })),
    onSuccess: ({ event }) => {
      offerUndo({ event, words: `${name} is recognised no more.` })
      recognisedChanged()
    },
  })
}

/** Says whether an assembly has what its kind is known for; the list of findings follows. */
export function useCheckFault() {
  return useMutation({
    mutationFn: ({ assemblyId: id, ...body }: Schemas['FaultCheckInput'] & { assemblyId: number }) =>
      ask(api.POST('/api/assemblies/{id}/fault-checks', { params: { path: { id } }, body })),
    onSuccess: () => { touched('known', 'fault') },
  })
}
