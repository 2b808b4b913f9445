import { MutationCache, QueryClient } from '@tanstack/react-query'
import createClient from 'openapi-fetch'

import { reached, unreached } from '../data/connection'
import type { Waiting } from '../data/device'
import { keepForLater } from '../data/outbox'
import { changeBegins, changeIsKept } from '../data/sending'
import { withGiven } from '../data/standIns'
import { announce } from './announced'
import { KeptForLater, ProblemError, unreachable } from './problem'
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

// Whatever changes something carries a key, and says whose change it is: somebody else may have signed in in another
// tab. What is sent is read before that, as a body is read once.
type Change = { fingerprint: string; body: string; key: string }
const changes = new Map<string, Change>()
api.use({
  async onRequest({ request, id }) {
    if (request.method === 'GET' || asksOnly.test(new URL(request.url).pathname)) return
    const { body, waits } = withGiven(await request.clone().text())
    const fingerprint = `${request.method} ${request.url} ${body}`
    const key = keyFor(fingerprint)
    changes.set(id, { fingerprint, body, key })
    request.headers.set(requestKeyHeader, key)
    const account = accountNow()
    if (account && !isSigningIn(request.url)) request.headers.set(accountHeader, String(account))
    // It cites a photo that still waits here, and so waits behind it.
    if (waits) throw await leaveHere({ method: request.method, address: pathOf(request.url), body,
      type: 'application/json', key })
    return body ? new Request(request, { body }) : request
  },
  onResponse({ response, id }) {
    const change = changes.get(id)
    // A server that is busy or away has not answered: the same request may be sent again.
    if (change && response.status < 500) answered(change.fingerprint)
    changes.delete(id)
    reached()
    if (response.headers.has(namesHeader)) onNamesFound()
  },
  async onError({ request, id }) {
    const change = changes.get(id)
    changes.delete(id)
    if (request.signal.aborted) return
    unreached()
    if (!change || neverWaits.test(pathOf(request.url))) return
    return leaveHere({ method: request.method, address: pathOf(request.url), body: change.body,
      type: 'application/json', key: change.key })
  },
})

const pathOf = (url: string) => {
  const { pathname, search } = new URL(url, location.href)
  return pathname + search
}

const isSigningIn = (url: string) => /^\/api\/(session|welcome)\b/.test(pathOf(url))

/** What does not wait on this device: secrets, accounts, what is tried out first, and what an instrument does now. */
const neverWaits = new RegExp('^/api/(session|welcome|accounts|calendar-address|rounds$|collection|library|history|meter'
  + '|reader|chip-readings|console-port|console-captures|practice|credentials|machines/\\d+/credentials)\\b|/(pack|merge|take|drop|listen)$')

/** Keeps a change that did not reach the server; the error says so, or that there is no room for it. */
export async function leaveHere(change: Pick<Waiting, 'method' | 'address' | 'body' | 'type' | 'key'>): Promise<Error> {
  try {
    const waiting = await keepForLater({ ...change, at: new Date().toISOString(),
      page: location.pathname + location.search, title: document.title.replace(/ - Frugal Heron$/, '') })
    return new KeptForLater(waiting)
  } catch {
    return unreachable()
  }
}

type Answer<Data> = { data?: Data; error?: Schemas['Problem']; response: Response }

/** Returns what an operation answered, or throws a ProblemError that says what went wrong. */
export async function ask<Data>(call: Promise<Answer<Data>>): Promise<Data> {
  let answer: Answer<Data>
  try {
    answer = await call
  } catch (error) {
    throw error instanceof ProblemError ? error : unreachable()
  }
  if (answer.response.ok) return answer.data as Data
  if (answer.response.status === 401) sessionEnded()
  throw new ProblemError(answer.response.status, answer.error)
}

export const sessionKey = ['session']

/** In a change: whose it is. Somebody else who signed in here meanwhile does not make it. */
export const accountHeader = 'Heron-Account'

export const accountNow = () => queryClient.getQueryData<Schemas['SessionBody']>(sessionKey)?.account?.id
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
  mutationCache: new MutationCache({
    onMutate: (_, change) => { changeBegins(change) },
    onSuccess: (_, __, ___, change) => { historyChanged(); changeIsKept(change); announce('Saved.') },
    onError: (error, _, __, change) => { if (error instanceof KeptForLater) changeIsKept(change) },
  }),
  defaultOptions: {
    queries: {
      // What could not be reached is asked for again when there is a connection; until then what is there stays.
      retry: (failures, error) => failures < 1 && error instanceof ProblemError && error.status === 0,
      retryDelay: 0, staleTime: 5_000,
    },
    // A change is never put off in silence: it goes into the outbox, where one sees it.
    mutations: { retry: false, networkMode: 'always' },
  },
})

export const historyKey = ['history']

export function historyChanged() {
  void queryClient.invalidateQueries({ queryKey: historyKey })
}
