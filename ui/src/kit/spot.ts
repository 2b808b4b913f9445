import { useMemo } from 'react'
import { useLocation } from 'react-router'

/** A line of a sheet. */
export type Spot = { assembly: number; line: number }

/** The address of a line of a sheet on a page that shows the sheet. */
export const atSpot = (page: string, { assembly, line }: Spot) => `${page}?at=${String(assembly)}.${String(line)}`

/** The address of a line of a board: on its machine's bench, or in the stores where it is in none. */
export const spotAddress = (machineId: number | null, spot: Spot, stage = 'take-stock') =>
  atSpot(machineId ? `/bench/${String(machineId)}/${stage}` : `/stores/${String(spot.assembly)}`, spot)

/** The line that the address names, anew with each move to it. */
export function useSpot(): Spot | undefined {
  const { search, key } = useLocation()
  return useMemo(() => {
    const [, assembly, line] = /^(\d+)\.(\d+)$/.exec(new URLSearchParams(search).get('at') ?? '') ?? []
    // Who follows the same link once more wants to be taken there once more.
    return key && assembly && line ? { assembly: Number(assembly), line: Number(line) } : undefined
  }, [search, key])
}
