import { useEffect } from 'react'

import { useSpot } from '../../kit/spot'
import type { Reckoning } from './useReckoning'

/** Takes who came for a line of a sheet to it. */
export function useShowSpot(show: Reckoning['show']) {
  const spot = useSpot()
  useEffect(() => { if (spot) show(spot.assembly, spot.line) }, [spot, show])
}
