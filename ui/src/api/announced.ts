/** What is said aloud to those who do not see it: that a deed was kept, how many a list found. */
let words = ''
let count = 0
const listeners = new Set<() => void>()

export function announce(now: string) {
  words = now
  count++
  for (const tell of listeners) tell()
}

export const onAnnounced = (tell: () => void) => {
  listeners.add(tell)
  return () => { listeners.delete(tell) }
}

/** The words, and which time of saying it is: the same words twice are said twice. */
export const announced = () => `${String(count)} ${words}`
