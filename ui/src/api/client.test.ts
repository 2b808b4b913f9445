// @vitest-environment jsdom
import { describe, expect, it, vi } from 'vitest'

import { refusal, serve } from '../testing/server'
import { api, ask, queryClient, sessionEndedKey, whenNamesAreFound } from './client'
import { ProblemError } from './problem'

const enter = (name: string) => ask(api.POST('/api/machines', { body: { accession: 'EH-7', name } }))
const keyOf = (headers: Headers) => headers.get('Idempotency-Key')

describe('asking the server', () => {
  it('sends a key with what creates something, and the same one until it is answered', async () => {
    let isAway = true
    const asked = serve(() => (isAway ? 'no connection' : { status: 201, body: { id: 1 } }))
    await expect(enter('Sorter')).rejects.toThrow()
    await expect(enter('Sorter')).rejects.toThrow()
    isAway = false
    await enter('Sorter')
    await enter('Sorter')
    const [first, second, third, fourth] = asked.map(({ headers }) => keyOf(headers))
    expect(first).toBeTruthy()
    expect([second, third]).toEqual([first, first])
    expect(fourth).not.toBe(first)
  })

  it('keeps the key while the server is busy, and takes another once it has refused', async () => {
    const answers = [refusal(503, 'Busy.'), refusal(422, 'Give a name.'), { status: 201, body: {} }]
    const asked = serve(() => answers.shift() ?? {})
    for (let n = 0; n < 3; n++) await enter('Sorter').catch(() => undefined)
    const [first, second, third] = asked.map(({ headers }) => keyOf(headers))
    expect(second).toBe(first)
    expect(third).not.toBe(first)
  })

  it('sends none with what only asks, or reads', async () => {
    const asked = serve(() => ({ body: {} }))
    await ask(api.POST('/api/machines/{id}/reckoning', { params: { path: { id: 1 } }, body: { drafts: [] } } as never))
    await ask(api.GET('/api/machines', {}))
    expect(asked.map(({ headers }) => keyOf(headers))).toEqual([null, null])
    expect(asked[0]?.path).toBe('/api/machines/1/reckoning')
  })

  it('says what was refused, where, and that a session has ended', async () => {
    serve(() => refusal(422, 'Give a name.', { errors: [{ location: 'body.name', message: 'Give a name.' }] }))
    const refused = await enter('').catch((error: unknown) => error)
    expect(refused).toBeInstanceOf(ProblemError)
    expect((refused as ProblemError).fields).toEqual({ name: 'Give a name.' })
    expect(queryClient.getQueryData(sessionEndedKey)).toBeUndefined()
    serve(() => refusal(401, 'Sign in first.'))
    await expect(enter('Sorter')).rejects.toThrow('Sign in first.')
    expect(queryClient.getQueryData(sessionEndedKey)).toBe(true)
  })

  it('tells that names were found in what was saved', async () => {
    const tell = vi.fn()
    whenNamesAreFound(tell)
    serve(() => ({ status: 201, body: {}, headers: { 'Heron-Names-Found': '2' } }))
    await enter('Sorter of Rose')
    expect(tell).toHaveBeenCalledOnce()
  })
})
