import { describe, expect, it } from 'vitest'

import { designatorsOf } from './partOnPicture'

describe('the parts that a line names', () => {
  it.each([
    ['U14 27128-25', ['U14']], ['u40-U42   41256-15', ['U40', 'U41', 'U42']], ['IC1..IC2 7400', ['IC1', 'IC2']],
    ['U20,U22 27128 @socket', ['U20', 'U22']], ['8x 4164-15', []], ['# a comment', []], ['', []], ['U9-U7 x', ['U9']],
  ])('%s', (line, parts) => { expect(designatorsOf(line)).toEqual(parts) })
})
