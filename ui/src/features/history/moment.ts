import { queryClient, sessionKey, type Schemas } from '../../api/client'

/** The zone in which the collection counts its days, as the session says: all see the same times, wherever they are. */
export const timeZone = () =>
  queryClient.getQueryData<Schemas['SessionBody']>(sessionKey)?.account?.timeZone ?? 'UTC'

/** Year, month, day, hour and minute of a time in the collection's zone; of one that the browser does not know in UTC. */
function partsOf(at: Date): Record<string, string> {
  const form = { year: 'numeric', month: '2-digit', day: '2-digit', hour: '2-digit', minute: '2-digit',
    hourCycle: 'h23' } as const
  let format
  try {
    format = new Intl.DateTimeFormat('en', { ...form, timeZone: timeZone() })
  } catch {
    format = new Intl.DateTimeFormat('en', { ...form, timeZone: 'UTC' })
  }
  return Object.fromEntries(format.formatToParts(at).map(({ type, value }) => [type, value]))
}

const day = ({ year, month, day }: Record<string, string>) => `${year ?? ''}-${month ?? ''}-${day ?? ''}`

/** The day it is in the collection: 2026-11-25. */
export const today = () => day(partsOf(new Date()))

/** A time as people write it, to the minute, in the collection's zone: 2026-11-25 14:05. */
export function moment(iso: string): string {
  const parts = partsOf(new Date(iso))
  return `${day(parts)} ${parts.hour ?? ''}:${parts.minute ?? ''}`
}

/** The day of a time in the collection's zone: 2026-11-25. */
export const dayOf = (iso: string) => day(partsOf(new Date(iso)))
