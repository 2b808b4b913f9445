// @vitest-environment jsdom
import { expect, it } from 'vitest'

import { serve } from '../../testing/server'
import { partOnPicture } from './partOnPicture'

it('leads from a line to its part on the picture that has a number for it', async () => {
  const on = (assemblyId: number, line: number, designator: string) =>
    ({ assemblyId, legend: { numbered: [{ n: 1, designator, line, words: '' }], unplaced: [] } })
  serve(({ path }) => ({ body: path.includes('/machines/') ? [{ attachmentId: 5 }, { attachmentId: 6 }]
    : path.includes('/5/') ? on(9, 2, 'U1') : on(3, 2, 'U 14') }))
  expect(await partOnPicture(7, 3, 2)).toBe('/bench/7/board-picture/6?part=U%2014')
  expect(await partOnPicture(7, 3, 4)).toBeUndefined()
})
