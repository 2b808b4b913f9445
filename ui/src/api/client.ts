import { MutationCache, QueryClient } from '@tanstack/react-query'
import createClient from 'openapi-fetch'

import { ProblemError, unreachable } from './problem'
import type { components, paths } from './schema.gen'

export type Schemas = components['schemas']

export const api = createClient<paths>({ baseUrl: '/' })

type Answer<Data> = { data?: Data; error?: Schemas['Problem']; response: Response }

/** Returns what an operation answered, or throws a ProblemError that says what went wrong. */
export async function ask<Data>(call: Promise<Answer<Data>>): Promise<Data> {
  let answer: Answer<Data>
  try {
    answer = await call
  } catch {
    throw unreachable()
  }
  if (answer.response.ok) return answer.data as Data
  if (answer.response.status === 401) sessionEnded()
  throw new ProblemError(answer.response.status, answer.error)
}

export const sessionKey = ['session']
export const sessionEndedKey = ['session ended']

/** Notes that the server no longer knows who asks. The page stays, with what is typed in it, until somebody signs in again. */
export function sessionEnded() {
  queryClient.setQueryData(sessionEndedKey, true)
}

export const queryClient = new QueryClient({
  // Whatever was done stands in the history.
  mutationCache: new MutationCache({ onSuccess: () => { historyChanged() } }),
  defaultOptions: { queries: { retry: false, staleTime: 5_000 }, mutations: { retry: false } },
})

export const historyKey = ['history']

export function historyChanged() {
  void queryClient.invalidateQueries({ queryKey: historyKey })
}
