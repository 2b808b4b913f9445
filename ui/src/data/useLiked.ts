import { useSyncExternalStore } from 'react'

import { accountNow } from '../api/client'

/**
 * How somebody likes to see things, as the columns of a list, kept on this device by account. It is no record: where
 * the browser keeps nothing, it lasts as long as the page.
 */
const memory = new Map<string, string>()
const listeners = new Set<() => void>()
const nameOf = (name: string) => `heron.liked.${String(accountNow() ?? 0)}.${name}`

function read(name: string): string | undefined {
  try {
    return localStorage.getItem(nameOf(name)) ?? memory.get(nameOf(name))
  } catch {
    return memory.get(nameOf(name))
  }
}

function write(name: string, value: string) {
  memory.set(nameOf(name), value)
  try {
    localStorage.setItem(nameOf(name), value)
  } catch {
    // It stays in memory.
  }
  for (const tell of listeners) tell()
}

const onLiked = (tell: () => void) => {
  listeners.add(tell)
  return () => { listeners.delete(tell) }
}

/** A liking under a name; `isOne` says whether what is kept there is one, as another version may have kept it. */
export function useLiked<Value>(name: string, start: Value,
  isOne: (value: unknown) => value is Value): [value: Value, set: (value: Value) => void] {
  const text = useSyncExternalStore(onLiked, () => read(name))
  let value: Value = start
  try {
    const kept: unknown = text === undefined ? undefined : JSON.parse(text)
    if (isOne(kept)) value = kept
  } catch {
    // Somebody else wrote there.
  }
  return [value, (now) => { write(name, JSON.stringify(now)) }]
}

export const isTexts = (value: unknown): value is string[] =>
  Array.isArray(value) && value.every((one) => typeof one === 'string')
