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

/** How long something is overdue, as people say it: in days for two years, then in years. */
export function late(days: number): string {
  if (days > 730) return `${String(Math.floor(days / 365.25))} years overdue`
  return days === 1 ? '1 day overdue' : `${days.toLocaleString('en')} days overdue`
}
