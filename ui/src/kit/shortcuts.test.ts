import { describe, expect, it } from 'vitest'

import { keyOf } from './shortcuts'

describe('the keys for the stage before and after', () => {
  it.each([
    ['a plain keyboard', '[', 'BracketLeft', '['],
    ['ü, where a German one has it', 'ü', 'BracketLeft', '['],
    ['+, where a German one has it', '+', 'BracketRight', ']'],
    ['a dead accent, where a French one has it', 'Dead', 'BracketLeft', '['],
    ['the bracket of a German one, by AltGr and 8', '[', 'Digit8', '['],
    ['the slash of a keyboard that has it there stays one', '/', 'BracketLeft', '/'],
    ['another letter', 'e', 'KeyE', 'e'],
  ])('%s', (_, key, code, is) => { expect(keyOf({ key, code })).toBe(is) })
})
