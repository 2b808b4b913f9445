import { type RefObject, useEffect, useRef } from 'react'
import { useLocation } from 'react-router'

/** Where one arrives on a page: its stage on the bench, else its title. */
const headings = '[data-arrive], h1, h2'

/** What has the focus on purpose: a field that waits for words. */
const field = 'input, textarea, select, [contenteditable="true"]'

/**
 * After a move the focus goes to the heading of the page, so that a keyboard goes on from there and a screen reader
 * says
 * where one is. A page that puts it into a field, or on the line that the address names, is left alone.
 */
export function useArrival(room: RefObject<HTMLElement | null>) {
  const { pathname, search, hash } = useLocation()
  const before = useRef(pathname)
  useEffect(() => {
    if (before.current === pathname) return
    before.current = pathname
    if (hash || new URLSearchParams(search).has('at')) return
    const arrive = () => {
      const heading = room.current?.querySelector<HTMLElement>(headings)
      if (!heading) return false
      if (document.activeElement?.matches(field)) return true
      heading.tabIndex = -1
      heading.focus({ preventScroll: true })
      return true
    }
    if (arrive() || !room.current) return
    const watch = new MutationObserver(() => { if (arrive()) watch.disconnect() })
    watch.observe(room.current, { childList: true, subtree: true })
    return () => { watch.disconnect() }
  }, [pathname, search, hash, room])
}
