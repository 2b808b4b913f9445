import { useEffect, useEffectEvent, useSyncExternalStore } from 'react'

const typing = 'input, textarea, select, [contenteditable="true"]'

/** The keys right of P, which are letters or accents on many keyboards, by what a plain one has there. */
const brackets: Record<string, string> = { BracketLeft: '[', BracketRight: ']' }

/** The key as the product calls it: brackets are where a plain keyboard has them, or where this one has them. */
export function keyOf({ key, code }: Pick<KeyboardEvent, 'key' | 'code'>): string {
  return !/^[a-z0-9/?[\]]$/i.test(key) ? brackets[code] ?? key : key
}

const offKey = 'heron.keys off'
const listeners = new Set<() => void>()
const areOff = () => {
  try {
    return localStorage.getItem(offKey) !== null
  } catch {
    return false // a browser that keeps nothing
  }
}

/** Whether keys of one letter do something, on this device; some voices and hands press them without meaning to. */
export function useSingleKeys(): [areOn: boolean, set: (areOn: boolean) => void] {
  const off = useSyncExternalStore((tell) => {
    listeners.add(tell)
    return () => { listeners.delete(tell) }
  }, areOff)
  return [!off, (on) => {
    if (on) localStorage.removeItem(offKey)
    else localStorage.setItem(offKey, '1')
    for (const tell of listeners) tell()
  }]
}

/** Calls back for a key pressed outside of text fields, without modifiers; one letter only where that is wanted. */
export function useShortcut(onKey: (key: string, event: KeyboardEvent) => void) {
  const call = useEffectEvent(onKey)
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const isAltGraph = event.getModifierState('AltGraph') // by which some keyboards write a bracket
      if (((event.ctrlKey || event.altKey) && !isAltGraph) || event.metaKey || event.defaultPrevented) return
      if (event.target instanceof Element && event.target.closest(typing)) return
      const key = keyOf(event)
      if (key.length === 1 && areOff()) return
      call(key, event)
    }
    document.addEventListener('keydown', listen)
    return () => { document.removeEventListener('keydown', listen) }
  }, [])
}
