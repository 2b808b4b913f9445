import { keepPreviousData, queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { touched } from './touched'

export type Party = Schemas['Party']
export type PartyFields = Schemas['PartyInput']

const partiesKey = ['parties']

export const partiesQuery = (words: string) =>
  queryOptions({
    queryKey: [...partiesKey, words],
    queryFn: ({ signal }) => ask(api.GET('/api/parties', { params: { query: { words } }, signal })),
    placeholderData: keepPreviousData,
  })

// Names stand in lots, chains and statements.
const onChange = { onSuccess: () => { touched('party') } }

export function useAddParty() {
  return useMutation({ mutationFn: (body: PartyFields) => ask(api.POST('/api/parties', { body })), ...onChange })
}

export function useChangeParty(id: number) {
  return useMutation({
    mutationFn: (body: PartyFields & { version: number }) =>
      ask(api.PUT('/api/parties/{id}', { params: { path: { id } }, body })),
    ...onChange,
  })
}
