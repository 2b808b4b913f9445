import { describe, expect, it } from 'vitest'

import type { FindingView } from '../../../../api/judge'
import { choicesFor, seenAgain } from './seenAgain'

const finding = (story: Partial<FindingView['story']>) =>
  ({ id: 7, kind: 'leaking', story: { open: true, severity: 'watch', goneOn: '', ...story } }) as FindingView
const words = (of: FindingView) => choicesFor(of).map(({ text }) => text)

describe('what can be said of a finding that was there before', () => {
  it('offers as before, worse, better, another severity or gone, and nothing first', () => {
    expect(words(finding({}))).toEqual(['not said', 'as before, watch', 'worse, still watch', 'better, still watch',
      'now cosmetic', 'now repair', 'now hazard', 'gone'])
    expect(choicesFor(finding({}))[0]?.value).toBe('')
  })
  it('offers that one is back which was gone, with any severity', () => {
    expect(words(finding({ open: false, goneOn: '2024-05-01' }))).toEqual(['gone since 2024-05-01',
      'it is back, cosmetic', 'it is back, watch', 'it is back, repair', 'it is back, hazard'])
  })
  it('says each choice in the fields of the server', () => {
    expect(seenAgain(finding({}), undefined)).toEqual([])
    expect(seenAgain(finding({}), { is: '', note: 'typed, but nothing chosen' })).toEqual([])
    expect(seenAgain(finding({}), { is: 'worse', note: 'larger' })).toEqual([{ findingId: 7, note: 'larger',
      severity: 'watch', trend: 'worse' }])
    expect(seenAgain(finding({}), { is: 'hazard', note: '' })).toEqual([{ findingId: 7, note: '', severity: 'hazard' }])
    expect(seenAgain(finding({}), { is: 'gone', note: '' })).toEqual([{ findingId: 7, note: '', severity: 'watch',
      gone: true }])
  })
})
