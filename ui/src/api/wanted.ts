import { keepPreviousData, queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { touched } from './touched'
import { offerUndo } from './undo'

export type Want = Schemas['Want']
export type WantFields = Schemas['WantInput']
export type Offer = Schemas['Offer']
export type OfferFields = Schemas['OfferInput']
export type Weighed = Schemas['Weighed']

export const wantsQuery = queryOptions({ queryKey: ['wants'], queryFn: () => ask(api.GET('/api/wants')) })
export const offersQuery = queryOptions({ queryKey: ['offers'], queryFn: () => ask(api.GET('/api/offers')) })

/** What an offer amounts to, while it is typed. */
export const offerReadingQuery = (body: OfferFields) =>
  queryOptions({ queryKey: ['offers', 'read', body], queryFn: () => ask(api.POST('/api/offers/read', { body })),
    enabled: body.title.trim() !== '' || Boolean(body.text?.trim()), placeholderData: keepPreviousData, retry: false })

const changed = () => { touched('wanted') }

export function useAddWant() {
  return useMutation({ mutationFn: (body: WantFields) => ask(api.POST('/api/wants', { body })), onSuccess: changed })
}

export function useChangeWant(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['ChangedWant']) => ask(api.PUT('/api/wants/{id}', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}

export function useVoidWant() {
  return useMutation({
    mutationFn: ({ id, version }: Want) =>
      ask(api.POST('/api/wants/{id}/void', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { what }) => {
      changed()
      offerUndo({ event, words: `${what} is deleted from what is wanted.` })
    },
  })
}

export function useAddOffer() {
  return useMutation({ mutationFn: (body: OfferFields) => ask(api.POST('/api/offers', { body })), onSuccess: changed })
}

export function useChangeOffer(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['ChangedOffer']) => ask(api.PUT('/api/offers/{id}', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}

export function useVoidOffer() {
  return useMutation({
    mutationFn: ({ id, version }: Offer) =>
      ask(api.POST('/api/offers/{id}/void', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { title }) => {
      changed()
      offerUndo({ event, words: `The offer ${title} is deleted.` })
    },
  })
}

/** Makes a lot of an offer, and ends the search for what is in it. */
export function useTakeOffer(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['BoughtOffer']) => ask(api.POST('/api/offers/{id}/lot', { params: { path: { id } }, body })),
    onSuccess: () => { touched('wanted', 'lot') },
  })
}
