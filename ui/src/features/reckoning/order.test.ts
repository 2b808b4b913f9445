import { describe, expect, it } from 'vitest'

import type { Verdict } from '../../api/reckoning'
import { ordered } from './order'

const line = (key: string, stage: string, state: Verdict['state'] = 'plain'): Verdict =>
  ({ key, label: key, value: '1', state, caution: '', grave: false, why: [], stage })
const all = [line('batteries', 'take-stock', 'stop'), line('condition', 'judge', 'attention'),
  line('evidence', 'look-over', 'attention'), line('ram', 'take-stock'), line('sockets', 'take-stock'),
  line('built', 'identify')]
const stages = ['look-over', 'take-stock', 'identify', 'judge']
const keys = (verdicts: Verdict[]) => verdicts.map(({ key }) => key)

describe('the reckoning beside a stage', () => {
  it('begins with what the stage is about, then what needs attention there, then the rest by stage', () => {
    const { figures, urgent, rest } = ordered(all, { path: 'take-stock', figures: ['ram', 'rom', 'built'] }, stages)
    expect(keys(figures)).toEqual(['ram', 'built'])
    expect(keys(urgent)).toEqual(['batteries'])
    expect(rest.map(({ path, verdicts }) => [path, keys(verdicts)])).toEqual([['look-over', ['evidence']],
      ['take-stock', ['sockets']], ['judge', ['condition']]])
  })

  it('loses no line, and tells on the page of the machine what must stop', () => {
    for (const here of [{ path: 'at-a-glance', figures: ['ram'] }, { path: 'judge', figures: [] }]) {
      const { figures, urgent, rest } = ordered(all, here, stages)
      const told = [...figures, ...urgent, ...rest.flatMap(({ verdicts }) => verdicts)]
      expect(keys(told).sort()).toEqual(keys(all).sort())
    }
    expect(keys(ordered(all, { path: 'at-a-glance', figures: [] }, stages).urgent)).toEqual(['batteries'])
    expect(keys(ordered(all, undefined, stages).urgent)).toEqual(keys(all))
  })
})
