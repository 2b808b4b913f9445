import { useEffect } from 'react'
import { useLocation } from 'react-router'

/** Takes who came for one row of a list to it: the row whose id is the kind and the name that the address has. */
export function useNamedRow(kind: string): string | undefined {
  const { search, key } = useLocation()
  const name = new URLSearchParams(search).get(kind) ?? undefined
  useEffect(() => {
    const row = name === undefined || !key ? null : document.getElementById(`${kind}-${name}`)
    if (!row) return
    row.scrollIntoView({ block: 'center' })
    row.focus({ preventScroll: true })
  }, [kind, name, key])
  return name
}
