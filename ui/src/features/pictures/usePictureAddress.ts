import { useEffect, useMemo } from 'react'

import { viewOf } from '../../api/attachments'
import { isStandIn, standInFor } from '../../data/standIns'
import { useWaiting } from '../../data/useWaiting'

/** Where a picture is shown from: the server, or this device while it waits for a connection. */
export function usePictureAddress(id: number, size: Parameters<typeof viewOf>[1]) {
  const waits = isStandIn(id)
  const waiting = useWaiting().find((one) => waits && one.id !== undefined && standInFor(one.id) === id)?.body
  const here = useMemo(() => (waiting instanceof Blob ? URL.createObjectURL(waiting) : undefined), [waiting])
  useEffect(() => () => { if (here) URL.revokeObjectURL(here) }, [here])
  return waits ? here : viewOf(id, size)
}
