import { expect, test } from 'vitest'

import { readIntervals, writeIntervals } from './intervals'

test('intervals survive the round trip, and a line that is none is found', () => {
  const intervals = [{ fromYears: 0, months: 12 }, { fromYears: 10, months: 3 }]
  expect(writeIntervals(intervals)).toBe('0: 12\n10: 3')
  expect(readIntervals(' 0 : 12 \n\n10:3\n')).toEqual(intervals)
  for (const text of ['0 12', '0: often', '0: 12\n: 3']) expect(readIntervals(text), text).toBeUndefined()
})
