import { useSyncExternalStore } from 'react'

import { like, liked, likedText, onLiked } from './liked'

/** A liking under a name, and the way to another one. */
export function useLiked<Value>(name: string, start: Value,
  isOne: (value: unknown) => value is Value): [value: Value, set: (value: Value) => void] {
  const text = useSyncExternalStore(onLiked, () => likedText(name))
  return [liked(name, start, isOne, text), (now) => { like(name, now) }]
}

export const isTexts = (value: unknown): value is string[] =>
  Array.isArray(value) && value.every((one) => typeof one === 'string')
