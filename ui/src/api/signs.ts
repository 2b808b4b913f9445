import { keepPreviousData, queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { offerUndo } from './undo'
import { touched } from './touched'

export type Signs = Schemas['Signs']
export type SignList = Schemas['SignList']
export type SignTable = Schemas['Table']
export type Sign = SignTable['signs'][number]
export type SignKind = Sign['kind']
export type Sighting = Schemas['Sighting']
export type SightingFields = Schemas['SightingInput']
export type SignReading = Schemas['SignReading']
export type Agreement = Schemas['Agreement']

const signsKey = ['signs']

export const signsQuery = (machineId: number) =>
  queryOptions({ queryKey: [...signsKey, machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/signs', { params: { path: { id: machineId } } })) })

/** What something that was seen amounts to, while it is typed. */
export const signReadingQuery = (machineId: number, body: SightingFields) =>
  queryOptions({
    queryKey: [...signsKey, machineId, 'read', body],
    queryFn: () => ask(api.POST('/api/machines/{id}/signs/read', { params: { path: { id: machineId } }, body })),
    enabled: body.shown.trim() !== '',
    placeholderData: keepPreviousData,
    retry: false,
  })

/** The signs of models and cards that hold all words. */
export const signListsQuery = (search: string) =>
  queryOptions({ queryKey: [...signsKey, 'lists', search], placeholderData: keepPreviousData,
    queryFn: ({ signal }) => ask(api.GET('/api/signs', { params: { query: { search } }, signal })) })

/** What machines show has changed, or by what it is read. */
export function signsChanged() {
  touched('sign')
}

export function useSeeSign(machineId: number) {
  return useMutation({
    mutationFn: (body: SightingFields) =>
      ask(api.POST('/api/machines/{id}/sightings', { params: { path: { id: machineId } }, body })),
    onSuccess: signsChanged,
  })
}

export function useVoidSighting() {
  return useMutation({
    mutationFn: ({ id, version }: Sighting) =>
      ask(api.POST('/api/sightings/{id}/void', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { kind, shown }) => {
      offerUndo({ event, words: `Struck out: ${kind} ${shown}.` })
      signsChanged()
    },
    onError: signsChanged,
  })
}
