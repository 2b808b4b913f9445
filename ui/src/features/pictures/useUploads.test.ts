import { expect, test } from 'vitest'

import { nextUploads, type Upload } from './useUploads'

const upload = (key: number, state: Upload['state']): Upload => ({ key, name: `photo ${String(key)}.jpg`, state,
  part: 0, why: '', file: new File([], 'x') })

test('a list of uploads follows each file, and is cleared of what is over', () => {
  let uploads = nextUploads([],
    { type: 'add', uploads: [upload(1, 'waiting'), upload(2, 'waiting'), upload(3, 'waiting')] })
  uploads = nextUploads(uploads, { type: 'change', key: 2, to: { state: 'sending', part: 0.5 } })
  uploads = nextUploads(uploads, { type: 'change', key: 1, to: { state: 'kept', part: 1 } })
  uploads = nextUploads(uploads, { type: 'change', key: 3, to: { state: 'refused', why: 'This is a program.' } })
  expect(uploads.map(({ state, part }) => [state, part])).toEqual([['kept', 1], ['sending', 0.5], ['refused', 0]])
  expect(nextUploads(uploads, { type: 'clear' }).map(({ key }) => key)).toEqual([2])
})
