import { queryClient } from '../api/client'
import { sessionQuery } from '../api/session'

/** Signs somebody in for a test: a curator, who may do everything, or a viewer, who may look. */
export function signIn(role: 'curator' | 'viewer', id = 1) {
  const isStaff = role === 'curator'
  queryClient.setQueryData(sessionQuery.queryKey, { account: { id, name: 'Ottilie Wren', role, timeZone: 'UTC',
    mayWriteSheets: isStaff, mayKeepTheRecord: isStaff } })
}
