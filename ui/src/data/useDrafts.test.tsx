// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import { useKept } from './useDrafts'

type Step = { line: string; photos: number[] }
const start: Step = { line: '', photos: [] }

describe('what is typed', () => {
  it('outlives the form until it is sent', () => {
    const first = renderHook(() => useKept('step of 7', start))
    act(() => { first.result.current[1]((step) => ({ ...step, line: 'Lid | 4x M3' })) })
    first.unmount()
    const again = renderHook(() => useKept('step of 7', start))
    expect(again.result.current[0].line).toBe('Lid | 4x M3')
    act(() => { again.result.current[2]() })
    expect(again.result.current[0]).toEqual(start)
    expect(renderHook(() => useKept('step of 7', start)).result.current[0]).toEqual(start)
  })

  it('takes what comes while one types on', () => {
    const { result } = renderHook(() => useKept('step of 8', start))
    const [, change] = result.current
    act(() => {
      change((step) => ({ ...step, line: 'Lid' }))
      change((step) => ({ ...step, photos: [...step.photos, 5] }))
    })
    expect(result.current[0]).toEqual({ line: 'Lid', photos: [5] })
  })

  it('of another name is another\'s', () => {
    const one = renderHook(() => useKept('step of 1', start))
    act(() => { one.result.current[1](() => ({ line: 'mine', photos: [] })) })
    expect(renderHook(() => useKept('step of 2', start)).result.current[0]).toEqual(start)
  })
})
