import { device, type Waiting } from './device'
import { noteGiven, withGiven } from './standIns'

/**
 * Changes that could not reach the server. They lie on this device by account, and are sent in the order in which they
 * were made, each with its request key: what did arrive, and only its answer was lost, is not done twice.
 */
let owner = 0
let all: Waiting[] = []
let isSending = false
const listeners = new Set<() => void>()

function changed(next: Waiting[]) {
  all = next
  queueMicrotask(() => { for (const tell of listeners) tell() })
}

export const onOutbox = (tell: () => void) => {
  listeners.add(tell)
  return () => { listeners.delete(tell) }
}
/** All that waits, or was refused, the oldest first. */
export const waitingChanges = () => all

/** What becomes of the changes of an account from now on: how they are sent, and what happens when one is. */
type Sender = {
  send: (waiting: Waiting) => Promise<Response>
  /** Something was taken: what is shown may differ. */
  onSent: (sent: Waiting, answer: unknown) => void
  /** Whoever is signed in now is somebody else, or nobody. */
  onStranger: () => void
  /** There is no connection, still. */
  onUnreachable: () => void
}
let sender: Sender | undefined

/** Begins with what waits on this device for an account. */
export async function openOutbox(account: number, by: Sender) {
  owner = account
  sender = by
  all = [] // what is another's is nobody's here
  try {
    await readAgain(account)
  } catch {
    if (owner === account) changed([]) // this browser keeps nothing
  }
}

/** Whoever was at work is gone: nothing is kept or sent until somebody is there again. */
export function closeOutbox() {
  owner = 0
  sender = undefined
  changed([])
}

/** Changes that this device is writing down right now, by their request keys. */
const beingKept = new Map<string, Promise<number>>()

/**
 * Keeps a change until it can be sent, under the number that it returns. One that waits already under the same request
 * key is the same change, asked for twice: the server would do it once, so it is kept once. Rejected where this device
 * cannot keep it.
 */
export async function keepForLater(waiting: Omit<Waiting, 'id' | 'account' | 'refused'>): Promise<number> {
  if (!owner) throw new Error('nobody is signed in')
  const twin = all.find(({ key, refused }) => key === waiting.key && !refused)?.id ?? beingKept.get(waiting.key)
  if (twin !== undefined) return twin
  const keeping = keep({ ...waiting, account: owner, refused: '' })
  beingKept.set(waiting.key, keeping)
  try {
    return await keeping
  } finally {
    beingKept.delete(waiting.key)
  }
}

async function keep(kept: Waiting): Promise<number> {
  const id = await (await device()).add('outbox', kept)
  // What waits may have been read from the device meanwhile, with this already in it.
  changed([...all.filter((one) => one.id !== id), { ...kept, id }])
  return id
}

/** Sends what waits, in order, until one cannot be sent. */
export async function sendWaiting() {
  if (isSending || !sender || !all.some(({ refused }) => !refused)) return
  isSending = true
  try {
    // One tab at a time, where the browser can tell; else the request keys keep things from being done twice.
    if (navigator.locks) await navigator.locks.request('heron outbox', sendInOrder)
    else await sendInOrder()
  } finally {
    isSending = false
  }
}

async function sendInOrder() {
  const account = owner
  await readAgain(account) // another tab may have sent some
  for (;;) {
    const next = all.find(({ refused }) => !refused)
    if (!next || !sender || owner !== account) return
    let response: Response
    try {
      response = await sender.send(typeof next.body === 'string' ? { ...next, body: withGiven(next.body).body } : next)
    } catch {
      sender.onUnreachable()
      return
    }
    if (response.status === 401) { sender.onStranger(); return }
    if (response.status >= 500 || response.status === 429) return // not now
    if (response.ok) {
      const answer = await response.json().catch(() => undefined) as unknown
      await drop(next)
      const given = numberIn(answer, 'id')
      if (next.id !== undefined && typeof next.body !== 'string' && given) noteGiven(next.id, given)
      await follow(next, answer)
      sender.onSent(next, answer)
    } else {
      await put({ ...next, refused: await whyNot(response) })
    }
  }
}

/** Reads what waits from the device. What was written there while it was read is newer than what was read. */
async function readAgain(account: number) {
  const before = all
  const read = await (await device()).getAllFromIndex('outbox', 'account', account)
  if (owner !== account) return
  const newer = all.filter((one) => !before.includes(one))
  changed([...read.filter((one) => !newer.some(({ id }) => id === one.id)), ...newer])
}

async function whyNot(response: Response) {
  const problem = await response.json().catch(() => undefined) as
    { detail?: string; errors?: { message: string }[] } | undefined
  const rest = (problem?.errors ?? []).map(({ message }) => message).filter((one) => one !== problem?.detail)
  return [problem?.detail ?? `The server answered with status ${String(response.status)}.`, ...rest].join(' ')
}

/**
 * What was done one after the other without a connection stands on each other: later changes of the same record were
 * begun
 * on the version that the one before has just made. Anybody else's version between them is still found out by the
 * server.
 */
async function follow(sent: Waiting, answer: unknown) {
  const [, record, id] = /^(\/api\/[^/]+\/(\d+))/.exec(sent.address) ?? []
  if (!record) return
  const was = parsed(sent)
  for (const [stoodOn, now] of [['version', versionOf(answer, Number(id))], ['base', numberIn(answer, 'n')]] as const) {
    const before = numberIn(was, stoodOn)
    if (before === undefined || now !== before + 1) continue
    for (const later of all) {
      const body = parsed(later)
      const isOfRecord = later.address === record || later.address.startsWith(`${record}/`)
      if (isOfRecord && !later.refused && numberIn(body, stoodOn) === before)
        await put({ ...later, body: JSON.stringify({ ...body as object, [stoodOn]: now }) })
    }
  }
}

/** The version of a record in an answer: of the answer itself, or of what it holds. */
function versionOf(answer: unknown, id: number) {
  if (!answer || typeof answer !== 'object') return undefined
  const held = [answer, ...Object.values(answer)].find((one) => numberIn(one, 'id') === id)
  return numberIn(held, 'version')
}

const parsed = ({ body }: Waiting): unknown => {
  try {
    return typeof body === 'string' ? JSON.parse(body) : undefined
  } catch {
    return undefined
  }
}
const numberIn = (of: unknown, name: string) => {
  const value = of && typeof of === 'object' ? (of as Record<string, unknown>)[name] : undefined
  return typeof value === 'number' ? value : undefined
}

async function put(waiting: Waiting) {
  await (await device()).put('outbox', waiting)
  changed(all.map((one) => (one.id === waiting.id ? waiting : one)))
}

async function drop({ id }: Waiting) {
  if (id !== undefined) await (await device()).delete('outbox', id)
  changed(all.filter((one) => one.id !== id))
}

/** Gives one up. */
export const dropWaiting = drop

/** Tries one again that was refused, as a new request. */
export async function tryAgain(waiting: Waiting) {
  await put({ ...waiting, key: `${waiting.key}-again-${String(Date.now())}`, refused: '' })
  await sendWaiting()
}

/** Gives up all that waits for an account. */
export async function dropOutbox() {
  for (const one of all) await drop(one)
}
