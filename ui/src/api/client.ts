import { MutationCache, QueryCache, QueryClient } from '@tanstack/react-query'
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
  throw new ProblemError(answer.response.status, answer.error)
}

export const sessionKey = ['session']

export const queryClient = new QueryClient({
  queryCache: new QueryCache({
    onError: (error) => {
      // The session ended meanwhile: ask again who is signed in, which shows the sign-in.
      if (error instanceof ProblemError && error.status === 401) void queryClient.invalidateQueries({ queryKey: sessionKey })
    },
  }),
  // Whatever was done stands in the history.
  mutationCache: new MutationCache({ onSuccess: () => { historyChanged() } }),
  defaultOptions: { queries: { retry: false, staleTime: 5_000 }, mutations: { retry: false } },
})

export const historyKey = ['history']

export function historyChanged() {
  void queryClient.invalidateQueries({ queryKey: historyKey })
}
