import { queryOptions, useMutation } from '@tanstack/react-query'

import { offerUndo } from './undo'
import { api, ask, queryClient, type Schemas } from './client'

export type LibraryType = Schemas['LibraryType']
export type OwnType = Schemas['OwnType']
export type OwnTypeFields = Schemas['OwnTypeFields']

const libraryKey = ['library']

export const libraryQuery = (start: string) =>
  queryOptions({
    queryKey: [...libraryKey, 'types', start],
    queryFn: () => ask(api.GET('/api/library', { params: { query: { start } } })),
    placeholderData: (previous: LibraryType[] | undefined) => previous,
  })

export const occurrencesQuery = (number: string) =>
  queryOptions({
    queryKey: [...libraryKey, 'occurrences', number],
    queryFn: () => ask(api.GET('/api/library/occurrences', { params: { query: { number } } })),
  })

/** A type that is known or gone changes what every sheet amounts to. */
function changed() {
  for (const queryKey of [libraryKey, ['reckoning'], ['machines']]) void queryClient.invalidateQueries({ queryKey })
}

export function useNameType() {
  return useMutation({
    mutationFn: (body: OwnTypeFields) => ask(api.POST('/api/own-types', { body })),
    onSuccess: changed,
  })
}

export function useChangeType(id: number) {
  return useMutation({
    mutationFn: (body: OwnTypeFields & { version: number }) => ask(api.PUT('/api/own-types/{id}', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}

export function useForgetType() {
  return useMutation({
    mutationFn: ({ id }: OwnType) => ask(api.DELETE('/api/own-types/{id}', { params: { path: { id } } })),
    onSuccess: ({ event }, { number }) => {
      changed()
      offerUndo({ event, words: `${number} is taken out of the library.` })
    },
  })
}
