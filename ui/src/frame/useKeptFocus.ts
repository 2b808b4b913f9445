import { type RefObject, useEffect } from 'react'

/** What the keyboard can go to. */
const focusable = 'a[href], button:not([disabled]), input:not([disabled]), select:not([disabled]), '
  + 'textarea:not([disabled]), [contenteditable="true"], [tabindex="0"]'

/**
 * When what had the focus is taken away, as a form that was saved or a row that was done, the focus goes to the next
 * thing there, so that a keyboard goes on where it was.
 */
export function useKeptFocus(room: RefObject<HTMLElement | null>) {
  useEffect(() => {
    const watched = room.current
    if (!watched) return
    let last: Element | null = null
    const note = ({ target }: FocusEvent) => { last = target instanceof Element ? target : null }
    const watch = new MutationObserver((changes) => {
      if (!last || last.isConnected) return
      const gone = changes.find(({ removedNodes }) => [...removedNodes].some((node) => node.contains(last)))
      if (!gone) return
      last = null
      // A dialog that closes and a page that comes put the focus themselves.
      setTimeout(() => {
        if (document.activeElement !== document.body || !gone.target.isConnected) return
        next(gone)?.focus({ preventScroll: true })
      }, 0)
    })
    watched.addEventListener('focusin', note)
    watch.observe(watched, { childList: true, subtree: true })
    return () => {
      watched.removeEventListener('focusin', note)
      watch.disconnect()
    }
  }, [room])
}

/** What follows the place that something was taken from, within its part; else the part's heading. */
function next({ target, previousSibling }: MutationRecord): HTMLElement | undefined {
  const parent = target as HTMLElement
  const part = parent.closest<HTMLElement>('section, [role="dialog"], main') ?? parent
  const follows = (one: HTMLElement) => previousSibling?.isConnected
    ? Boolean(previousSibling.compareDocumentPosition(one) & Node.DOCUMENT_POSITION_FOLLOWING)
      && !previousSibling.contains(one)
    : parent.contains(one)
  const found = [...part.querySelectorAll<HTMLElement>(focusable)].find(follows)
  if (found) return found
  const heading = part.querySelector<HTMLElement>('h1, h2, h3')
  if (heading) heading.tabIndex = -1
  return heading ?? undefined
}
