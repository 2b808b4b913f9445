import { describe, expect, it } from 'vitest'

import { messageOf, ProblemError, unreachable } from './problem'

const refused = new ProblemError(422, {
  title: 'Not acceptable as it is',
  status: 422,
  detail: 'validation failed',
  errors: [
    { location: 'body.name', message: 'give the machine a name' },
    { location: 'body', message: 'expected required property text to be present' },
  ],
})

describe('ProblemError', () => {
  it('gives a form its messages by field', () => {
    expect(refused.fields).toEqual({ name: 'give the machine a name' })
  })
  it('says what no field can show', () => {
    expect(refused.summary).toBe('validation failed expected required property text to be present')
  })
  it('has words for a server that gives no details', () => {
    expect(new ProblemError(502, undefined).summary).toContain('502')
    expect(messageOf(unreachable())).toBe('The server does not answer.')
  })
})
