import { useMutation, useQuery } from '@tanstack/react-query'

import { api, ask, queryClient } from './client'

/** A deed that was just done: its event, by which it can be taken back, or 0; and what was done, in words. */
export type Offer = { event: number; words: string }

const offerKey = ['undo offered']

export function offerUndo(offer: Offer | null) {
  queryClient.setQueryData(offerKey, offer)
}

export function useUndoOffer(): Offer | null {
  return useQuery<Offer | null>({ queryKey: offerKey, queryFn: () => null, enabled: false, initialData: null }).data
}

/** Has everything read again that is shown: after this, anything may look different. */
export function anythingMayDiffer() {
  void queryClient.invalidateQueries({ predicate: ({ queryKey }) =>
    queryKey !== offerKey && queryKey[0] !== 'session' })
}

/** Takes back what an event of the history did. */
export function useUndo() {
  return useMutation({
    mutationFn: (event: number) => ask(api.POST('/api/history/{id}/undo', { params: { path: { id: event } } })),
    onSuccess: () => {
      offerUndo(null)
      anythingMayDiffer()
    },
  })
}
