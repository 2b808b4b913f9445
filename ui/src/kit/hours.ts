/** What a plan is made for while no hours are written. */
const usual = 240
const most = 60_000

/** Hours as they are typed, in minutes; four hours for what is none. */
export function minutesOf(hours: string): number {
  const given = Number(hours.replace(',', '.'))
  return Number.isFinite(given) && given >= 0.25 ? Math.min(Math.round(given * 60), most) : usual
}

/** Minutes as people say them: 3 h 35 min. */
export function inHours(minutes: number): string {
  const hours = Math.floor(minutes / 60)
  return [hours > 0 && `${String(hours)} h`, minutes % 60 > 0 && `${String(minutes % 60)} min`].filter(Boolean)
    .join(' ') || '0 min'
}
