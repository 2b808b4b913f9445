import { queryOptions, useMutation, useQuery } from '@tanstack/react-query'

import { api, ask, queryClient, sessionKey } from './client'

export const sessionQuery = queryOptions({
  queryKey: sessionKey,
  queryFn: () => ask(api.GET('/api/session')),
  staleTime: 60_000,
})

export function useAccount() {
  return useQuery(sessionQuery).data?.account ?? null
}

export function useSignIn() {
  return useMutation({
    mutationFn: (body: { login: string; password: string }) => ask(api.POST('/api/session', { body })),
    onSuccess: (session) => {
      queryClient.setQueryData(sessionKey, session)
      void queryClient.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== sessionKey[0] })
    },
  })
}

export function useSignOut() {
  return useMutation({
    mutationFn: () => ask(api.DELETE('/api/session')),
    onSuccess: () => {
      // What the account could see leaves the device's memory with it.
      queryClient.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== sessionKey[0] })
      queryClient.setQueryData(sessionQuery.queryKey, { account: null })
    },
  })
}

export function useChangePassword() {
  return useMutation({
    mutationFn: (body: { current: string; wanted: string }) => ask(api.PUT('/api/session/password', { body })),
  })
}
