import { useEffect } from 'react'

/** Names the page in the window's title, its tab and the browser's history. */
export function usePageTitle(name: string) {
  useEffect(() => { document.title = name ? `${name} - Frugal Heron` : 'Frugal Heron' }, [name])
}
