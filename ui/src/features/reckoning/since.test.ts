import { describe, expect, it } from 'vitest'

import type { ReckonedMachine } from '../../api/reckoning'
import { lineChange, withSince } from './since'

const reason = (line: number, assembly = 1) => ({ code: 'on', args: [], text: '', spot: { assembly, line } })
const before = {
  answer: 'a', stage: { state: 'begun', count: 0 }, walk: [], left: [],
  boards: [{ assemblyId: 1, totals: {}, records: [],
    lines: [1, 2, 3].map((line) => ({ line, text: `of ${String(line)}` })) },
    { assemblyId: 2, totals: {}, records: [], lines: [{ line: 1, text: 'another' }] }],
  verdicts: [{ key: 'ram', value: '16', why: [reason(1), reason(3), reason(3, 2)] }, { key: 'rom', value: '4', why: [] }],
} as unknown as ReckonedMachine
type Since = Parameters<typeof withSince>[1]
const nothing = { gone: [], put: [] }

describe('an answer that tells what changed', () => {
  it('counts lines on wherever they are named, and leaves what stays as the same object', () => {
    const now = withSince(before, {
      answer: 'b', stage: before.stage, walk: [], left: [], order: ['rom', 'ram'],
      verdicts: [{ verdict: { ...before.verdicts[1], value: '8' }, why: { head: 0, put: [reason(2)], tail: 0 } }],
      boards: [{ assemblyId: 1, after: 1, by: 1, totals: {}, records: nothing,
        lines: { gone: [4], put: [{ line: 2, text: 'new' }] } },
      { assemblyId: 2, after: 1, by: 0, totals: {}, records: nothing, lines: nothing }],
    } as unknown as Since)
    expect(now.boards[0]?.lines.map(({ line, text }) => [line, text])).toEqual([[1, 'of 1'], [2, 'new'], [3, 'of 2']])
    expect(now.boards[1]).toBe(before.boards[1])
    expect(now.verdicts.map(({ key, value }) => [key, value])).toEqual([['rom', '8'], ['ram', '16']])
    expect(now.verdicts[1]?.why.map(({ spot }) => spot?.line)).toEqual([1, 4, 3])
    expect(now.answer).toBe('b')
  })

  it('is asked for by the lines that differ', () => {
    expect(lineChange(7, 'a\nb\nc', 'a\nx\ny\nc')).toEqual({ assemblyId: 7, from: 2, gone: 1, lines: ['x', 'y'] })
    expect(lineChange(7, 'a\na', 'a')).toEqual({ assemblyId: 7, from: 2, gone: 1, lines: [] })
    expect(lineChange(7, '', 'a')).toEqual({ assemblyId: 7, from: 1, gone: 1, lines: ['a'] })
  })
})
