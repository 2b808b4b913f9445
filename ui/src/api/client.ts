import { MutationCache, QueryClient } from '@tanstack/react-query'
import createClient from 'openapi-fetch'

import { ProblemError, unreachable } from './problem'
import { answered, keyFor, requestKeyHeader } from './requestKey'
import type { components, paths } from './schema.gen'

export type Schemas = components['schemas']

export const api = createClient<paths>({ baseUrl: '/' })

/** Operations that are sent as POST because they bring much text, and change nothing. */
const asksOnly = /\/(reckon|reckoning|sheet-line|read|merge|understand|look)$/

/** In an answer: what was written names private persons, and somebody can say whether they are meant. */
const namesHeader = 'Heron-Names-Found'

let onNamesFound: () => void = () => undefined

/** Lets somebody ask about names that were just saved. */
export function whenNamesAreFound(tell: () => void) {
  onNamesFound = tell
}

// Whatever creates something carries a key. The fingerprint is taken before the request is sent, as its body is read
// once.
const fingerprints = new Map<string, string>()
api.use({
  async onRequest({ request, id }) {
    if (request.method !== 'POST' || asksOnly.test(new URL(request.url).pathname)) return
    const fingerprint = `${request.method} ${request.url} ${await request.clone().text()}`
    fingerprints.set(id, fingerprint)
    request.headers.set(requestKeyHeader, keyFor(fingerprint))
    return request
  },
  onResponse({ response, id }) {
    const fingerprint = fingerprints.get(id)
    // A server that is busy or away has not answered: the same request may be sent again.
    if (fingerprint && response.status < 500) answered(fingerprint)
    fingerprints.delete(id)
    if (response.headers.has(namesHeader)) onNamesFound()
  },
  onError({ id }) {
    fingerprints.delete(id)
  },
})

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

/**
 * Notes that the server no longer knows who asks. The page stays, with what is typed in it, until somebody signs in
 * again.
 */
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
