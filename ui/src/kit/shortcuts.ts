import { useEffect, useEffectEvent } from 'react'

const typing = 'input, textarea, select, [contenteditable="true"]'

/** Calls back for a key pressed outside of text fields, without modifiers. */
export function useShortcut(onKey: (key: string, event: KeyboardEvent) => void) {
  const call = useEffectEvent(onKey)
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return
      if (event.target instanceof Element && event.target.closest(typing)) return
      call(event.key, event)
    }
    document.addEventListener('keydown', listen)
    return () => { document.removeEventListener('keydown', listen) }
  }, [])
}
