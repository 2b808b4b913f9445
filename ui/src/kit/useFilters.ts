import { useSearchParams } from 'react-router'

type Change = (next: Record<string, string> | URLSearchParams) => void

/** What narrows a list, as the address says it. A change takes the place of the one before, and leaves the scroll. */
export function useFilters(): [URLSearchParams, Change] {
  const [parameters, set] = useSearchParams()
  return [parameters, (next) => { set(next, { replace: true, preventScrollReset: true }) }]
}
