import { type RefObject, useEffect, useRef } from 'react'
import { useLocation } from 'react-router'

/** Where one arrives on a page: its stage on the bench, else its title. */
const headings = ['[data-arrive]', 'h1, h2']

/** What an address may name on a page that takes the focus there itself. */
const named = ['at', 'open', 'finding']

/** What has the focus on purpose: a field that waits for words. */
const field = 'input, textarea, select, [contenteditable="true"]'

/**
 * After a move the focus goes to the heading of the page, so that a keyboard goes on from there and a screen
 * reader says where one is; or to the part that the address names. A page that puts it into a field, or on the line,
 * finding or panel that the address names, is left alone.
 */
export function useArrival(room: RefObject<HTMLElement | null>) {
  const { pathname, search, hash, key } = useLocation()
  const before = useRef(pathname)
  useEffect(() => {
    const part = decodeURIComponent(hash.slice(1))
    if (before.current === pathname && !part) return
    before.current = pathname
    const names = new URLSearchParams(search)
    if (named.some((name) => names.has(name))) return
    const arrive = () => {
      const goal = part ? document.getElementById(part) : headings.map((one) =>
        room.current?.querySelector<HTMLElement>(one)).find(Boolean)
      if (!goal) return false
      if (!part && document.activeElement?.matches(field)) return true
      goal.tabIndex = -1
      if (part) goal.scrollIntoView({ block: 'start' })
      goal.focus({ preventScroll: true })
      return true
    }
    if (arrive() || !room.current) return
    const watch = new MutationObserver(() => { if (arrive()) watch.disconnect() })
    watch.observe(room.current, { childList: true, subtree: true })
    return () => { watch.disconnect() }
  }, [pathname, search, hash, key, room])
}
