import type { OwnClass } from '../../api/judge'

type Intervals = OwnClass['intervals']

/** Intervals as a text: an age in years and the months between two looks, a line each. */
export const writeIntervals = (intervals: Intervals) =>
  intervals.map(({ fromYears, months }) => `${String(fromYears)}: ${String(months)}`).join('\n')

/** Reads them; undefined where a line is none. */
export function readIntervals(text: string): Intervals | undefined {
  const rows = text.split('\n').filter((line) => line.trim() !== '').map((line) =>
    /^\s*(\d+)\s*:\s*(\d+)\s*$/.exec(line))
  if (rows.some((row) => row === null)) return undefined
  return rows.flatMap((row) => (row ? [{ fromYears: Number(row[1]), months: Number(row[2]) }] : []))
}
