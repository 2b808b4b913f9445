import { keepPreviousData, queryOptions, useMutation } from '@tanstack/react-query'

import { offerUndo } from './undo'
import { api, ask, type Schemas } from './client'
import { touched } from './touched'

export type LibraryType = Schemas['LibraryType']
export type OwnType = Schemas['OwnType']
export type OwnTypeFields = Schemas['OwnTypeInput']

const libraryKey = ['library']

export const libraryQuery = (start: string) =>
  queryOptions({
    queryKey: [...libraryKey, 'types', start],
    queryFn: ({ signal }) => ask(api.GET('/api/library', { params: { query: { start } }, signal })),
    placeholderData: keepPreviousData,
  })

export const occurrencesQuery = (number: string) =>
  queryOptions({
    queryKey: [...libraryKey, 'occurrences', number],
    queryFn: ({ signal }) => ask(api.GET('/api/library/occurrences', { params: { query: { number, limit: 5000 } }, signal })),
  })

/** A type that is known or gone changes what every sheet amounts to. */
function changed() {
  touched('type')
}

export function useNameType() {
  return useMutation({
    mutationFn: (body: OwnTypeFields) => ask(api.POST('/api/own-types', { body })),
    onSuccess: changed,
  })
}

export function useChangeType(id: number) {
  return useMutation({
    mutationFn: (body: OwnTypeFields & { version: number }) =>
      ask(api.PUT('/api/own-types/{id}', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}

export type TakenPack = Schemas['TakenPack']

export function useTakePack() {
  return useMutation({
    mutationFn: (body: Schemas['Pack']) => ask(api.POST('/api/own-types/pack', { body })),
    onSuccess: ({ taken }) => { if (taken) changed() },
  })
}

export type Maker = Schemas['MakerView']
export type MakerFields = Schemas['MakerInput']
const makersKey = ['makers']
const onMakers = { onSuccess: () => { touched('maker') } }

export const makersQuery = (search: string) => queryOptions({ queryKey: [...makersKey, search], queryFn: () =>
  ask(api.GET('/api/makers', { params: { query: { search } } })) })

export function useAddMaker() {
  return useMutation({ mutationFn: (body: MakerFields) => ask(api.POST('/api/makers', { body })), ...onMakers })
}

export function useChangeMaker(id: number) {
  return useMutation({ mutationFn: (body: MakerFields & { version: number }) =>
    ask(api.PUT('/api/makers/{id}', { params: { path: { id } }, body })), ...onMakers })
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
