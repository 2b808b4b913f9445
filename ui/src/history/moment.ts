/** A time as people here write it, to the minute: 2026-11-25 14:05. */
export function moment(iso: string): string {
  const at = new Date(iso)
  const two = (n: number) => String(n).padStart(2, '0')
  return `${String(at.getFullYear())}-${two(at.getMonth() + 1)}-${two(at.getDate())} ${two(at.getHours())}:${two(at.getMinutes())}`
}
