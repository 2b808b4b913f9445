import { expect, test } from 'vitest'

import { inHours, minutesOf } from './hours'

test('hours are read as people type them, and said as people say them', () => {
  for (const [typed, minutes] of [['4', 240], ['0,5', 30], ['1.25', 75], ['', 240], ['soon', 240], ['0', 240],
    ['-3', 240], ['9999999', 60_000]] as const) {
    expect(minutesOf(typed), typed).toBe(minutes)
  }
  expect([0, 30, 60, 215].map(inHours)).toEqual(['0 min', '30 min', '1 h', '3 h 35 min'])
})
