import { useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { anythingMayDiffer } from './undo'

export type PackRow = Schemas['LibraryPackRow']
export type PackTaken = Schemas['LibraryPackTaken']

/** Says what a pack would do, or takes entries of it. */
export function useLibraryPack() {
  return useMutation({
    mutationFn: (body: Schemas['LibraryPack']) => ask(api.POST('/api/library/pack', { body })),
    onSuccess: ({ taken }) => { if (taken > 0) anythingMayDiffer() },
  })
}
