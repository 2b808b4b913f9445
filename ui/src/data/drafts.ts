import { device, type Draft } from './device'
import { forgetLastWords, keepLastWords, lastWords } from './lastWords'

/**
 * What is typed and not sent, by account. It lies in the memory of the page and is written to the device when the
 * page is idle, so that no key waits for it; it outlives a closed tab. Somebody else on the same device neither sees
 * nor sends it.
 */
let owner = 0
const typed = new Map<string, Draft>()
const unwritten = new Set<string>()
/** What is on its way to the device: a page that is closed takes the way along. */
let onItsWay: string[] = []
const listeners = new Set<() => void>()
let all: Draft[] = []
let trouble = false
let tabs: BroadcastChannel | undefined

function changed() {
  all = [...typed.values()]
  // Not at once: a form may be in the middle of being drawn.
  queueMicrotask(() => { for (const tell of listeners) tell() })
}

/** Begins with what this device keeps for an account; what could not be written of another's is gone from memory. */
export async function openDrafts(account: number) {
  await flushDrafts()
  owner = account
  typed.clear()
  unwritten.clear()
  try {
    for (const draft of await (await device()).getAllFromIndex('drafts', 'account', account)) {
      if (owner === account && !typed.has(draft.name)) typed.set(draft.name, draft)
    }
  } catch {
    trouble = true // this browser keeps nothing, or not now
  }
  for (const draft of lastWords(account)) {
    if (owner !== account || (typed.get(draft.name)?.at ?? '') >= draft.at) continue
    typed.set(draft.name, draft)
    unwritten.add(draft.name)
  }
  later()
  tabs ??= listenToTabs()
  changed()
}

/** Another tab of the same person may type, too: what it keeps is known here, but for what is being typed here. */
function listenToTabs() {
  if (typeof BroadcastChannel === 'undefined') return undefined
  const channel = new BroadcastChannel('heron drafts')
  channel.onmessage = ({ data }: MessageEvent<{ account: number; name: string; draft?: Draft }>) => {
    if (data.account !== owner || unwritten.has(data.name)) return
    if (data.draft) typed.set(data.name, data.draft)
    else typed.delete(data.name)
    changed()
  }
  return channel
}

/** What was typed under a name and is not sent yet; undefined for nothing. */
export function draftOf(name: string): Draft | undefined {
  return typed.get(name)
}

export function keptUnder<Value>(name: string): Value | undefined {
  return typed.get(name)?.value as Value | undefined
}

/** Keeps what was typed until it is sent; undefined forgets it. */
export function keepUnder(name: string, value: unknown) {
  const isAnotherWord = value !== undefined && typed.has(name)
  if (value === undefined) {
    if (!typed.delete(name)) return
  } else {
    typed.set(name, { account: owner, name, value, at: new Date().toISOString(),
      page: location.pathname, title: document.title })
  }
  unwritten.add(name)
  forgetLastWords(owner, name)
  later()
  // That one more word was typed is told when it is written: no key waits for who lists what is typed.
  if (!isAnotherWord) changed()
}

/** How long a word may wait before it is written, in milliseconds: the keys of one word are written together. */
const rest = 250
let waiting = false

function later() {
  if (waiting) return
  waiting = true
  const begin = () => { waiting = false; changed(); void flushDrafts() }
  setTimeout(() => {
    if (typeof requestIdleCallback === 'function') requestIdleCallback(begin, { timeout: rest })
    else begin()
  }, rest)
}

let written = Promise.resolve()

/** Writes what is not written yet, one after the other. */
export function flushDrafts() {
  written = written.then(write)
  return written
}

async function write() {
  if (unwritten.size === 0) return
  const names = [...unwritten]
  const [account, drafts] = [owner, names.map((name) => typed.get(name))]
  unwritten.clear()
  onItsWay = names
  try {
    const writing = (await device()).transaction('drafts', 'readwrite', { durability: 'strict' })
    names.forEach((name, i) => {
      const draft = drafts[i]
      void (draft ? writing.store.put(draft) : writing.store.delete([account, name])).catch(() => undefined)
    })
    await writing.done
    names.forEach((name, i) => {
      forgetLastWords(account, name)
      tabs?.postMessage({ account, name, draft: drafts[i] })
    })
    setTrouble(false)
  } catch {
    // The device is full, or keeps nothing: what was typed stays in the page, and the page says so.
    if (account === owner) for (const name of names) unwritten.add(name)
    setTrouble(true)
  } finally {
    onItsWay = []
  }
}

function setTrouble(is: boolean) {
  if (trouble === is) return
  trouble = is
  changed()
}

/** Drops all that an account typed and did not send. */
export async function dropDrafts() {
  const account = owner
  typed.clear()
  unwritten.clear()
  changed()
  const db = await device()
  const writing = db.transaction('drafts', 'readwrite')
  for (const key of await writing.store.index('account').getAllKeys(account)) void writing.store.delete(key)
  await writing.done
}

export const onDrafts = (tell: () => void) => {
  listeners.add(tell)
  return () => { listeners.delete(tell) }
}
/** All that is typed and not sent. */
export const allDrafts = () => all
/** Whether what is typed cannot be kept on this device. */
export const draftsInTrouble = () => trouble && typed.size > 0

/** A page that is closed has no time to wait for the device: what is not written then is left where that is at once. */
function leave() {
  for (const name of [...onItsWay, ...unwritten]) {
    const draft = typed.get(name)
    if (draft) keepLastWords(draft)
  }
  void flushDrafts()
}

if (typeof document !== 'undefined') {
  document.addEventListener('visibilitychange', () => { if (document.visibilityState === 'hidden') leave() })
  addEventListener('pagehide', leave)
}
