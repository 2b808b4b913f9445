import { expect, test } from 'vitest'

import { scale, yearsBetween } from './timeScale'

test('days lie on the line in proportion, and never beyond its ends', () => {
  const at = scale('1980-01-01', '1990-01-01')
  expect(at('1980-01-01')).toBe(0)
  expect(at('1985-01-01')).toBeCloseTo(50, 0)
  expect(at('0001-01-01')).toBe(0)
  expect(at('9999-12-31')).toBe(100)
  expect(scale('1984-06-02', '1984-06-02')('1984-06-02')).toBe(0)
})

test('few years are written, whatever the line spans', () => {
  expect(yearsBetween('1984-06-02', '1987-01-01')).toEqual([1984, 1985, 1986, 1987])
  expect(yearsBetween('1979-01-01', '2025-03-14')).toEqual([1980, 1990, 2000, 2010, 2020])
  for (let span = 0; span < 900; span += 7) {
    const years = yearsBetween('1100-01-01', `${String(1100 + span)}-01-01`)
    expect(years.length).toBeLessThanOrEqual(10)
  }
})
