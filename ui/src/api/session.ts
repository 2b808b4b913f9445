import { queryOptions, useMutation, useQuery } from '@tanstack/react-query'

import { flushDrafts } from '../data/drafts'
import { closeOutbox, sendWaiting } from '../data/outbox'
import { bringBackSeen, forgetSeen } from '../data/seen'
import { forgetUsed } from '../data/usedLast'
import { api, ask, queryClient, sessionEnded, sessionEndedKey, sessionKey, type Schemas } from './client'

export const sessionQuery = queryOptions({
  queryKey: sessionKey,
  queryFn: async () => {
    const before = queryClient.getQueryData<Schemas['SessionBody']>(sessionKey)
    let session: Schemas['SessionBody']
    try {
      session = await ask(api.GET('/api/session'))
    } catch (error) {
      // Without a connection it goes on with whoever was signed in last, and with what they saw.
      const seen = before ? undefined : await bringBackSeen()
      if (seen) return seen
      throw error
    }
    if (!session.account && !before?.account) await forgetSeen()
    if (session.account || !before?.account) return session
    // The session ended without being signed out of: whoever was at work stays on the page.
    sessionEnded()
    return before
  },
  staleTime: 60_000, retry: false, networkMode: 'always',
})

/** Whether the session ended while somebody was at work. */
export function useSessionEnded(): boolean {
  return useQuery({ queryKey: sessionEndedKey, queryFn: () => false, enabled: false, initialData: false }).data
}

export function useAccount() {
  return useQuery(sessionQuery).data?.account ?? null
}

const ofSession = (key: unknown) => key === sessionKey[0] || key === sessionEndedKey[0]

function signedIn(session: Schemas['SessionBody']) {
  const before = queryClient.getQueryData<typeof session>(sessionKey)
  if (before?.account && before.account.id !== session.account?.id) forgetAll()
  queryClient.setQueryData(sessionKey, session)
  queryClient.setQueryData(sessionEndedKey, false)
  void queryClient.invalidateQueries({ predicate: ({ queryKey }) => !ofSession(queryKey[0]) })
  void sendWaiting()
}

/** What an account could see leaves the device's memory with it. */
function forgetAll() {
  queryClient.removeQueries({ predicate: ({ queryKey }) => !ofSession(queryKey[0]) })
}

export function useSignIn() {
  return useMutation({
    mutationFn: (body: { login: string; password: string }) => ask(api.POST('/api/session', { body })),
    onSuccess: signedIn,
  })
}

/** Sets the password of a link's account, and signs in. */
export function useTakeLink(token: string) {
  return useMutation({
    mutationFn: (password: string) => ask(api.POST('/api/welcome', { body: { token, password } })),
    onSuccess: signedIn,
  })
}

export function useSignOut() {
  return useMutation({
    mutationFn: async () => {
      await flushDrafts()
      await ask(api.DELETE('/api/session'))
      forgetUsed()
    },
    onSuccess: async () => {
      await forgetSeen()
      closeOutbox()
      forgetAll()
      queryClient.setQueryData(sessionQuery.queryKey, { account: null })
      queryClient.setQueryData(sessionEndedKey, false)
    },
  })
}

export function useChangePassword() {
  return useMutation({
    mutationFn: (body: { current: string; wanted: string }) => ask(api.PUT('/api/session/password', { body })),
  })
}
