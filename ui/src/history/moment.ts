const two = (n: number) => String(n).padStart(2, '0')
const dateOf = (at: Date) => `${String(at.getFullYear())}-${two(at.getMonth() + 1)}-${two(at.getDate())}`

/** The day it is here: 2026-11-25. */
export const today = () => dateOf(new Date())

/** A time as people here write it, to the minute: 2026-11-25 14:05. */
export function moment(iso: string): string {
  const at = new Date(iso)
  return `${dateOf(at)} ${two(at.getHours())}:${two(at.getMinutes())}`
}

/** The day of a time: 2026-11-25. */
export const dayOf = (iso: string) => dateOf(new Date(iso))
