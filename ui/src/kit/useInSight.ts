import { type RefObject, useEffect, useState } from 'react'

/** How far below the window something may stand and count as about to be seen. */
const margin = '300px'

/** Whether something has come into sight; from then on it counts as seen. */
export function useInSight(of: RefObject<HTMLElement | null>): boolean {
  const [seen, setSeen] = useState(typeof IntersectionObserver === 'undefined')
  useEffect(() => {
    if (seen || !of.current) return
    const observer = new IntersectionObserver((entries) => {
      if (entries.some(({ isIntersecting }) => isIntersecting)) setSeen(true)
    }, { rootMargin: margin })
    observer.observe(of.current)
    return () => { observer.disconnect() }
  }, [seen, of])
  return seen
}
