import { dehydrate, type DehydratedState, hydrate, type Query } from '@tanstack/react-query'

import { queryClient, type Schemas, sessionKey } from '../api/client'
import { device } from './device'

/**
 * What an account saw last lies on the device, so that the application opens without a connection. It goes when the
 * account signs out, or when the server says that nobody is signed in any more.
 */
const whoKey = 'heron.account'

/** What does not concern the collection, is asked at every key, or is so only now, as what an instrument shows. */
const left = new Set(['session', 'session ended', 'undo offered', 'dry run', 'people', 'own sessions',
  'welcome', 'device', 'version of the application', 'find', 'understood', 'merge', 'reader', 'meter', 'chip reading'])

/** At most so many of the last views are kept. */
const most = 150

/** Views of an older version may have another form. */
const version = () => document.querySelector('script[src]')?.getAttribute('src') ?? ''

/** How long nothing new has come before it is written, in milliseconds. */
const rest = 3_000

let owner = 0
let isListening = false

/** Keeps what an account sees from now on. */
export function keepSeen(account: number) {
  owner = account
  try {
    localStorage.setItem(whoKey, String(account))
  } catch {
    return // a browser that keeps nothing
  }
  if (isListening) return
  isListening = true
  const write = () => { if (document.visibilityState === 'hidden') void writeSeen() }
  document.addEventListener('visibilitychange', write)
  // Some time after the last news: a page that is closed has no time for it.
  let timer: ReturnType<typeof setTimeout> | undefined
  queryClient.getQueryCache().subscribe(({ type, query }) => {
    if (type !== 'updated' || query.state.status !== 'success' || left.has(String(query.queryKey[0]))) return
    clearTimeout(timer)
    timer = setTimeout(() => { void writeSeen() }, rest)
  })
}

/** What was reckoned of a text that is being typed. */
const isOfDrafts = ([kind, , , turn]: readonly unknown[]) => kind === 'reckoning' && turn !== 0

const newest = () => new Set(queryClient.getQueryCache().getAll()
  .filter(({ state, queryKey }) => state.status === 'success' && !left.has(String(queryKey[0])) && !isOfDrafts(queryKey))
  .sort((a, b) => b.state.dataUpdatedAt - a.state.dataUpdatedAt).slice(0, most))

export async function writeSeen() {
  if (!owner) return
  const kept = newest() as Set<Query>
  const state = dehydrate(queryClient, { shouldDehydrateQuery: (query) => kept.has(query),
    shouldDehydrateMutation: () => false })
  try {
    await (await device()).put('seen', { account: owner, at: Date.now(), version: version(),
      session: queryClient.getQueryData(sessionKey), state: JSON.parse(JSON.stringify(state)) as unknown })
  } catch {
    // No room: it opens without a connection only with what it had.
  }
}

/** Brings back what was seen by whoever was signed in last; undefined if nothing is kept. */
export async function bringBackSeen(): Promise<Schemas['SessionBody'] | undefined> {
  try {
    const account = Number(localStorage.getItem(whoKey))
    const seen = account ? await (await device()).get('seen', account) : undefined
    if (seen?.version !== version()) return undefined
    hydrate(queryClient, seen.state as DehydratedState)
    return seen.session as Schemas['SessionBody']
  } catch {
    return undefined
  }
}

/** Forgets what was seen on this device. */
export async function forgetSeen() {
  owner = 0
  try {
    localStorage.removeItem(whoKey)
    await (await device()).clear('seen')
  } catch {
    // Nothing was kept.
  }
}
