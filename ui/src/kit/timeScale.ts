const dayOf = (iso: string) => Date.parse(`${iso}T00:00:00Z`)

/** Where a day lies on a line from one day to another, in hundredths; days beyond an end lie at it. */
export function scale(from: string, to: string): (iso: string) => number {
  const first = dayOf(from)
  const span = Math.max(1, dayOf(to) - first)
  return (iso) => Math.min(100, Math.max(0, ((dayOf(iso) - first) / span) * 100))
}

/** At most nine years to write below a line, evenly apart. */
export function yearsBetween(from: string, to: string): number[] {
  const first = Number(from.slice(0, 4))
  const last = Number(to.slice(0, 4))
  const step = [1, 2, 5, 10, 20, 50].find((candidate) => (last - first) / candidate <= 8) ?? 100
  const years = []
  for (let year = Math.ceil(first / step) * step; year <= last; year += step) years.push(year)
  return years
}
