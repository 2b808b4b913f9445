import { accountNow } from '../api/client'

/**
 * How somebody likes to see things, as the columns of a list, kept on this device by account. It is no record: where
 * the browser keeps nothing, or is full, it lasts as long as the page.
 */
const memory = new Map<string, string>()
const listeners = new Set<() => void>()
const nameOf = (name: string) => `heron.liked.${String(accountNow() ?? 0)}.${name}`

/** What is kept under a name, as it was written; undefined for nothing. */
export function likedText(name: string): string | undefined {
  try {
    return localStorage.getItem(nameOf(name)) ?? memory.get(nameOf(name))
  } catch {
    return memory.get(nameOf(name))
  }
}

/** What is kept under a name, if it is what is meant: another version may have kept something else there. */
export function liked<Value>(name: string, start: Value, isOne: (value: unknown) => value is Value,
  text = likedText(name)): Value {
  try {
    const kept: unknown = text === undefined ? undefined : JSON.parse(text)
    return isOne(kept) ? kept : start
  } catch {
    return start // somebody else wrote there
  }
}

export function like(name: string, value: unknown) {
  const text = JSON.stringify(value)
  memory.set(nameOf(name), text)
  try {
    localStorage.setItem(nameOf(name), text)
  } catch {
    // It stays in memory.
  }
  for (const tell of listeners) tell()
}

/** Nothing of it stays, as at sign-out. */
export function forgetLiked(name: string) {
  memory.delete(nameOf(name))
  localStorage.removeItem(nameOf(name))
}

export const onLiked = (tell: () => void) => {
  listeners.add(tell)
  return () => { listeners.delete(tell) }
}
