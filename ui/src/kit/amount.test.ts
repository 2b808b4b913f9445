import { expect, test } from 'vitest'

import { amountOf, centsOf, readAmounts } from './amount'

test('amounts are read and written to the cent', () => {
  for (const [text, cents] of [['371.00', 37100], ['371', 37100], ['48,5', 4850], ['0.05', 5],
    [' 7.10 ', 710]] as const) {
    expect(centsOf(text)).toBe(cents)
    expect(centsOf(amountOf(cents))).toBe(cents)
  }
  expect(centsOf('')).toBeNull()
  for (const text of ['-3', '3.005', '1,000.00', '12 EUR']) expect(centsOf(text)).toBeUndefined()
})

test('what is no amount is told at its field', () => {
  const { cents, wrong } = readAmounts({ price: '371.00', value: 'much', estimate: '' })
  expect(cents).toEqual({ price: 37100, estimate: null })
  expect(Object.keys(wrong)).toEqual(['value'])
})
