import { useEffect, useEffectEvent } from 'react'

import { liked } from '../data/liked'
import { useLiked } from '../data/useLiked'

const typing = 'input, textarea, select, [contenteditable="true"]'

/** The keys right of P, which are letters or accents on many keyboards, by what a plain one has there. */
const brackets: Record<string, string> = { BracketLeft: '[', BracketRight: ']' }

/** The key as the product calls it: brackets are where a plain keyboard has them, or where this one has them. */
export function keyOf({ key, code }: Pick<KeyboardEvent, 'key' | 'code'>): string {
  return !/^[a-z0-9/?[\]]$/i.test(key) ? brackets[code] ?? key : key
}

const isSwitch = (value: unknown): value is boolean => typeof value === 'boolean'
const singleKeys = 'keys of one letter'

/** Whether keys of one letter do something, for somebody; some voices and hands press them without meaning to. */
export const useSingleKeys = () => useLiked(singleKeys, true, isSwitch)

/** Calls back for a key pressed outside of text fields, without modifiers; one letter only where that is wanted. */
export function useShortcut(onKey: (key: string, event: KeyboardEvent) => void) {
  const call = useEffectEvent(onKey)
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const isAltGraph = event.getModifierState('AltGraph') // by which some keyboards write a bracket
      if (((event.ctrlKey || event.altKey) && !isAltGraph) || event.metaKey || event.defaultPrevented) return
      if (event.target instanceof Element && event.target.closest(typing)) return
      const key = keyOf(event)
      if (key.length === 1 && !liked(singleKeys, true, isSwitch)) return
      call(key, event)
    }
    document.addEventListener('keydown', listen)
    return () => { document.removeEventListener('keydown', listen) }
  }, [])
}
