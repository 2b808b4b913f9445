import { useCallback } from 'react'
import { useSearchParams } from 'react-router'

import { useAccount } from '../api/session'

/** The part of an address that opens a panel of a page. */
export const openAt = (page: string, panel: string) =>
  `${page}?${new URLSearchParams({ open: panel }).toString()}`

/**
 * A panel of a page that opens and closes, as a form in which something is added. Which one is open stands in the
 * address, so that a link leads into it; for whom it is not, it stays closed.
 */
export function usePanel(name: string,
  who: 'all' | 'writers' | 'keepers' = 'writers'): [isOpen: boolean, setOpen: (isOpen: boolean) => void] {
  const account = useAccount()
  const may = { all: true, writers: account?.mayWriteSheets, keepers: account?.mayKeepTheRecord }[who]
  const [parameters, set] = useSearchParams()
  const isOpen = may === true && parameters.get('open') === name
  const setOpen = useCallback((open: boolean) => {
    set((now) => {
      if (open) now.set('open', name)
      else if (now.get('open') === name) now.delete('open')
      return now
    }, { replace: true, preventScrollReset: true })
  }, [name, set])
  return [isOpen, setOpen]
}
