import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { dossierChanged } from './dossier'

export type SharedIdentifier = Schemas['SharedIdentifier']
/** A record that identifiers stand on. */
export type RecordRef = Schemas['RecordRef']

export const sharedIdentifiersQuery = (of: RecordRef) =>
  queryOptions({
    queryKey: ['meetings', of],
    queryFn: ({ signal }) => ask(api.GET('/api/shared-identifiers', { params: { query: of }, signal })),
  })

export function useDecideSharedIdentifier() {
  return useMutation({
    mutationFn: (body: Schemas['SharedIdentifierDecision']) => ask(api.POST('/api/shared-identifiers', { body })),
    onSuccess: dossierChanged,
  })
}
