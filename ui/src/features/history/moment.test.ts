import { beforeEach, describe, expect, it, vi } from 'vitest'

import { queryClient, sessionKey } from '../../api/client'
import { dayOf, moment, today } from './moment'

const zone = (timeZone: string) => { queryClient.setQueryData(sessionKey, { account: { timeZone } }) }

describe('times are those of the collection', () => {
  beforeEach(() => { queryClient.clear() })

  it('wherever the browser is', () => {
    const late = '2026-11-28T23:30:00Z'
    expect([moment(late), dayOf(late)]).toEqual(['2026-11-28 23:30', '2026-11-28'])
    zone('Pacific/Kiritimati')
    expect([moment(late), dayOf(late)]).toEqual(['2026-11-29 13:30', '2026-11-29'])
    zone('Etc/GMT+12')
    expect(moment('2026-11-28T12:00:00Z')).toBe('2026-11-28 00:00')
  })

  it('and today is the day there', () => {
    vi.useFakeTimers({ now: new Date('2026-12-31T13:00:00Z') })
    zone('Pacific/Kiritimati')
    expect(today()).toBe('2027-01-01')
    vi.useRealTimers()
  })

  it('and in UTC where the browser does not know the zone', () => {
    zone('Estuary/House')
    expect(moment('2026-11-28T09:05:00Z')).toBe('2026-11-28 09:05')
  })
})
