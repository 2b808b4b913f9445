import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, queryClient, type Schemas } from './client'
import { touched } from './touched'

export type ListedAccount = Schemas['ListedAccountView']
export type AccountInput = Omit<Schemas['Change-accountRequest'], 'version'>
export type Invitation = Schemas['Invitation']
export type Role = Invitation['role']
export type Link = Schemas['Link']

const peopleKey = ['people']

export const peopleQuery = queryOptions({ queryKey: peopleKey, queryFn: () => ask(api.GET('/api/accounts')) })

const changed = () => { touched('account') }

export function useInvite() {
  return useMutation({ mutationFn: (body: Invitation) => ask(api.POST('/api/accounts', { body })), onSuccess: changed })
}

export function useReset() {
  return useMutation({
    mutationFn: (id: number) => ask(api.POST('/api/accounts/{id}/link', { params: { path: { id } } })),
    onSuccess: changed,
  })
}

export function useChangeAccount(id: number) {
  return useMutation({
    mutationFn: (body: AccountInput & { version: number }) =>
      ask(api.PUT('/api/accounts/{id}', { params: { path: { id } }, body })),
    onSettled: changed,
  })
}

export const ownSessionsQuery = queryOptions({ queryKey: ['own sessions'], queryFn: () =>
  ask(api.GET('/api/session/all')), staleTime: 0 })

export function useEndSession() {
  return useMutation({
    mutationFn: (key: string) => ask(api.DELETE('/api/session/all/{key}', { params: { path: { key } } })),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: ownSessionsQuery.queryKey }),
  })
}

/** Whose password a link sets. */
export const welcomeQuery = (token: string) =>
  queryOptions({ queryKey: ['welcome', token], queryFn: () => ask(api.POST('/api/welcome/check', { body: { token } })),
    gcTime: 0 })
