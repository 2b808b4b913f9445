import { useSyncExternalStore } from 'react'

/** As narrow as the theme's media query says. */
const query = '(max-width: 900px)'

/** Whether the page is as narrow as on a phone. */
export function useNarrow(): boolean {
  return useSyncExternalStore(follow, () => typeof matchMedia === 'function' && matchMedia(query).matches)
}

function follow(onChange: () => void): () => void {
  if (typeof matchMedia !== 'function') return () => undefined
  const list = matchMedia(query)
  list.addEventListener('change', onChange)
  return () => { list.removeEventListener('change', onChange) }
}
