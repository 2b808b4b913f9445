import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { dossierChanged } from './dossier'

export type Meeting = Schemas['Meeting']
/** A record that identifiers stand on. */
export type RecordRef = Schemas['RecordRef']

export const meetingsQuery = (of: RecordRef) =>
  queryOptions({
    queryKey: ['meetings', of],
    queryFn: () => ask(api.GET('/api/meetings', { params: { query: of } })),
  })

export function useDecideMeeting() {
  return useMutation({
    mutationFn: (body: Schemas['MeetingDecision']) => ask(api.POST('/api/meetings', { body })),
    onSuccess: dossierChanged,
  })
}
