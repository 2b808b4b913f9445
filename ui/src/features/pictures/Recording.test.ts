import { describe, expect, it } from 'vitest'

import { momentOf, secondOf } from './Recording'

describe('a moment of a recording', () => {
  it.each([[0, '0:00'], [65.9, '1:05'], [3661, '61:01'], [-1, '0:00']])('%s s is %s', (seconds, words) => {
    expect(momentOf(seconds)).toBe(words)
  })
  it('is read from what a citation says, and nothing else is', () => {
    expect([secondOf('1:05'), secondOf(' 61:01 '), secondOf('12'), secondOf('1:75'), secondOf('p. 1:05')])
      .toEqual([65, 3661, undefined, undefined, undefined])
  })
})
