import { keepPreviousData, infiniteQueryOptions, queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, queryClient, type Schemas } from './client'
import type { MachineFields } from './machines'
import { offerUndo } from './undo'
import { touched } from './touched'

export type Lot = Schemas['Lot']
export type LotThing = Schemas['LotThing']
export type LotFields = Omit<Schemas['ChangedLot'], 'version'>
export type ThingFields = Schemas['LotItemInput']
export type Arrival = Schemas['Arrival']

const lotsKey = ['lots']

/** Arrivals, page by page, the newest first. */
export const lotsQuery = (words: string) =>
  infiniteQueryOptions({
    queryKey: [...lotsKey, 'list', words],
    queryFn: ({ pageParam: skip }) => ask(api.GET('/api/lots', { params: { query: { words, skip } } })),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next || undefined,
    placeholderData: keepPreviousData,
  })

export const lotQuery = (id: number) =>
  queryOptions({
    queryKey: [...lotsKey, id],
    queryFn: () => ask(api.GET('/api/lots/{id}', { params: { path: { id } } })),
  })

export const assemblyArrivalQuery = (assemblyId: number) =>
  queryOptions({
    queryKey: [...lotsKey, 'of assembly', assemblyId],
    queryFn: () => ask(api.GET('/api/assemblies/{id}/arrival', { params: { path: { id: assemblyId } } })),
  })

function changed(lot?: Lot) {
  if (lot) queryClient.setQueryData(lotQuery(lot.id).queryKey, lot)
  touched('lot')
}

const onLot = { onSuccess: (lot: Lot) => { changed(lot) } }

export function useReceiveLot() {
  return useMutation({ mutationFn: (body: Schemas['Received']) => ask(api.POST('/api/lots', { body })), ...onLot })
}

export function useChangeLot(id: number) {
  return useMutation({
    mutationFn: (body: LotFields & { version: number }) =>
      ask(api.PUT('/api/lots/{id}', { params: { path: { id } }, body })),
    ...onLot,
  })
}

export function useAddThing(id: number) {
  return useMutation({
    mutationFn: (body: ThingFields & { version: number }) =>
      ask(api.POST('/api/lots/{id}/things', { params: { path: { id } }, body })),
    ...onLot,
  })
}

const ofThing = (id: number, thing: number) => ({ params: { path: { id, thing } } })

export function useChangeThing(id: number, thing: number) {
  return useMutation({
    mutationFn: (body: ThingFields & { version: number }) =>
      ask(api.PUT('/api/lots/{id}/things/{thing}', { ...ofThing(id, thing), body })),
    ...onLot,
  })
}

export function useVoidThing(id: number, { id: thing, title }: LotThing) {
  return useMutation({
    mutationFn: (version: number) =>
      ask(api.POST('/api/lots/{id}/things/{thing}/void', { ...ofThing(id, thing), body: { version } })),
    onSuccess: ({ lot, event }) => {
      changed(lot)
      offerUndo({ event, words: `${title} is taken out of the lot.` })
    },
  })
}

export function useThingBecomesMachine(id: number, thing: number) {
  return useMutation({
    mutationFn: (body: MachineFields & { version: number }) =>
      ask(api.POST('/api/lots/{id}/things/{thing}/machine', { ...ofThing(id, thing), body })),
    onSuccess: () => { changed() },
  })
}

export function useThingIsMachine() {
  return useMutation({
    mutationFn: ({ id, thing, ...body }: { id: number; thing: number; version: number; machineId: number }) =>
      ask(api.PUT('/api/lots/{id}/things/{thing}/machine', { ...ofThing(id, thing), body })),
    ...onLot,
  })
}

export function useThingGoesToStore(id: number, thing: number) {
  return useMutation({
    mutationFn: (body: Schemas['LooseInput'] & { version: number }) =>
      ask(api.POST('/api/lots/{id}/things/{thing}/assembly', { ...ofThing(id, thing), body })),
    onSuccess: () => { changed() },
  })
}

/** The number that the next thing of an arrival gets (0 for none). */
export const nextNumberQuery = (lot: number) =>
  queryOptions({
    queryKey: ['next number', lot],
    queryFn: ({ signal }) => ask(api.GET('/api/collection/next-number', { params: { query: { lot } }, signal })),
    staleTime: 0,
  })
