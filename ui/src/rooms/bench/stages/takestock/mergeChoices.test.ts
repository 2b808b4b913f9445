import { expect, it } from 'vitest'

import type { Stretch } from '../../../../api/assemblies'
import { everywhere, merged, spot, undecided } from './mergeChoices'

const stretch = (kind: Stretch['kind'], base: string[], mine: string[],
  theirs: string[]): Stretch => ({ kind, base, mine, theirs })
const first = stretch('conflict', ['U3 7408'], ['U3 7432'], ['U3 7486'])
const second = stretch('conflict', [], ['U9 mine'], ['U9 theirs'])
const sheet = [
  stretch('same', ['U1 7400'], ['U1 7400'], ['U1 7400']), stretch('mine', ['U2 a'], ['U2 mine'], ['U2 a']), first,
  stretch('theirs', ['U4 a'], ['U4 a'], []), stretch('alike', ['U5 a'], ['U5 b'], ['U5 b']), second,
]

it('waits for every conflict to be decided', () => {
  expect(undecided(sheet, {})).toEqual([first, second])
  expect(undecided(sheet, { [spot(first)]: 'mine' })).toEqual([second])
  expect(undecided(sheet, everywhere(sheet, 'theirs'))).toEqual([])
})

it('writes what was decided, and the rest as only one side changed it', () => {
  expect(merged(sheet, everywhere(sheet, 'mine'))).toBe('U1 7400\nU2 mine\nU3 7432\nU5 b\nU9 mine')
  expect(merged(sheet, everywhere(sheet, 'theirs'))).toBe('U1 7400\nU2 mine\nU3 7486\nU5 b\nU9 theirs')
  expect(merged(sheet, { [spot(first)]: 'both', [spot(second)]: 'theirs' }))
    .toBe('U1 7400\nU2 mine\nU3 7432\nU3 7486\nU5 b\nU9 theirs')
})

it('forgets a choice once other lines stand there', () => {
  const choices = everywhere(sheet, 'mine')
  const typedOn = { ...first, mine: ['U3 7432 8501'] }
  expect(undecided([typedOn], choices)).toEqual([typedOn])
})
