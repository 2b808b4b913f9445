import { useCallback, useState, useSyncExternalStore } from 'react'

import { allDrafts, draftsInTrouble, keepUnder, keptUnder, onDrafts } from './drafts'

/** All that is typed and not sent. */
export const useDrafts = () => useSyncExternalStore(onDrafts, allDrafts)

/** Whether what is typed cannot be kept on this device. */
export const useDraftsInTrouble = () => useSyncExternalStore(onDrafts, draftsInTrouble)

/**
 * What is typed into a form, kept on this device under a name until the server has it: it outlives a closed tab.
 * Forget it once it is sent, or given up.
 */
export function useKept<Value>(name: string,
  start: Value): [value: Value, change: (how: (before: Value) => Value) => void, forget: () => void] {
  const [value, setValue] = useState(() => keptUnder<Value>(name) ?? start)
  // From what is there then: a photo may come while one types on.
  const change = useCallback((how: (before: Value) => Value) => {
    setValue((before) => {
      const next = how(before)
      keepUnder(name, next)
      return next
    })
  }, [name])
  const forget = () => {
    setValue(start)
    keepUnder(name, undefined)
  }
  return [value, change, forget]
}
