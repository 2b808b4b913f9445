import { describe, expect, it } from 'vitest'

import { answered, keyFor } from './requestKey'

describe('keys of requests', () => {
  it('stay with a request until it is answered', () => {
    const first = keyFor('POST /api/machines {"name":"a"}')
    expect(first).toMatch(/^[0-9a-f]{32}$/)
    expect(keyFor('POST /api/machines {"name":"a"}')).toBe(first)
    expect(keyFor('POST /api/machines {"name":"b"}')).not.toBe(first)
    answered('POST /api/machines {"name":"a"}')
    expect(keyFor('POST /api/machines {"name":"a"}')).not.toBe(first)
  })

  it('are remembered for so many requests only', () => {
    const first = keyFor('first')
    for (let n = 0; n < 200; n++) keyFor(`other ${n}`)
    expect(keyFor('first')).not.toBe(first)
  })
})
