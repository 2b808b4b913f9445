import { infiniteQueryOptions, keepPreviousData, queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { touched } from './touched'
import { offerUndo } from './undo'

export type Stock = Schemas['Stock']
export type StockFields = Schemas['StockInput']
export type Order = Schemas['Order']
export type OrderFields = Schemas['OrderInput']
export type Needs = Schemas['Needs']
export type JobNeed = Schemas['JobNeed']

/** What lies in the stores, page by page. */
export const stockQuery = (search: string) =>
  infiniteQueryOptions({
    queryKey: ['stock', search],
    queryFn: ({ pageParam: after }) => ask(api.GET('/api/stock', { params: { query: { search, after } } })),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next || undefined,
    placeholderData: keepPreviousData,
  })

/** What lies in the stores for a machine: what came out of it, and what is for its model. */
export const stockForMachineQuery = (machineId: number) =>
  queryOptions({ queryKey: ['stock', 'machine', machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/stock', { params: { path: { id: machineId } } })) })

export const ordersQuery = queryOptions({ queryKey: ['orders'], queryFn: () => ask(api.GET('/api/orders')) })

export const needsQuery = queryOptions({ queryKey: ['needs'], queryFn: () => ask(api.GET('/api/needs')) })

/** Where a part sits that a need names. */
export const donorsQuery = (need: string) =>
  queryOptions({ queryKey: ['needs', 'donors', need], queryFn: () =>
    ask(api.GET('/api/needs/donors', { params: { query: { need } } })) })

const changed = () => { touched('stores') }

export function useAddStock() {
  return useMutation({ mutationFn: (body: StockFields) => ask(api.POST('/api/stock', { body })), onSuccess: changed })
}

export function useChangeStock(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['ChangedStock']) => ask(api.PUT('/api/stock/{id}', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}

export function useVoidStock() {
  return useMutation({
    mutationFn: ({ id, version }: Stock) =>
      ask(api.POST('/api/stock/{id}/void', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { what }) => {
      changed()
      offerUndo({ event, words: `${what} is deleted from the stores.` })
    },
  })
}

export function useAddOrder() {
  return useMutation({ mutationFn: (body: OrderFields) => ask(api.POST('/api/orders', { body })), onSuccess: changed })
}

export function useChangeOrder(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['ChangedOrder']) => ask(api.PUT('/api/orders/{id}', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}

export function useBookArrival(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['BookedArrival']) =>
      ask(api.POST('/api/orders/{id}/arrivals', { params: { path: { id } }, body })),
    onSuccess: changed,
    onError: changed, // somebody else may have booked it
  })
}

export function useVoidOrder() {
  return useMutation({
    mutationFn: ({ id, version }: Order) =>
      ask(api.POST('/api/orders/{id}/void', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { supplier }) => {
      changed()
      offerUndo({ event, words: `The order of ${supplier} is deleted.` })
    },
  })
}

export function useSetAside(jobId: number) {
  return useMutation({
    mutationFn: (body: Schemas['SetAsideInput']) =>
      ask(api.POST('/api/jobs/{id}/set-asides', { params: { path: { id: jobId } }, body })),
    onSuccess: changed,
    onError: changed, // somebody else may have taken it
  })
}

export function useRelease() {
  return useMutation({
    mutationFn: (id: number) => ask(api.POST('/api/set-asides/{id}/release', { params: { path: { id } } })),
    onSuccess: changed,
    onError: changed,
  })
}
