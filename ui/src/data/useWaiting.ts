import { useSyncExternalStore } from 'react'

import { onOutbox, waitingChanges } from './outbox'

/** All that waits to be sent, or was not taken, the oldest first. */
export const useWaiting = () => useSyncExternalStore(onOutbox, waitingChanges)
