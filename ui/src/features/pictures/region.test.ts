import { expect, test } from 'vitest'

import { between, moved, whole } from './region'

test('a part lies between two spots, inside the picture', () => {
  const part = between({ x: 0.6, y: 0.9 }, { x: 0.2, y: 1.4 })
  expect(part?.x).toBeCloseTo(0.2)
  expect(part?.w).toBeCloseTo(0.4)
  expect(part?.h).toBeCloseTo(0.1)
  expect(between({ x: 0.5, y: 0.5 }, { x: 0.5, y: 0.9 })).toBeUndefined()
})

test('arrow keys move and size a part without leaving the picture', () => {
  let part = moved(whole, 'ArrowRight', false) ?? whole
  expect(part.w).toBeCloseTo(0.2)
  for (let i = 0; i < 100; i++) part = moved(part, 'ArrowRight', false) ?? part
  expect(part.x + part.w).toBeCloseTo(1)
  for (let i = 0; i < 100; i++) part = moved(part, 'ArrowLeft', true) ?? part
  expect(part.w).toBeCloseTo(0.02)
  expect(moved(part, 'Enter', false)).toBeUndefined()
})
