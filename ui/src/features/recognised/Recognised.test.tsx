// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { FittedAssembly } from '../../api/assemblies'
import type { KnownClaim } from '../../api/known'
import { signIn } from '../../testing/people'
import { type Asked, refusal, serve } from '../../testing/server'
import { show } from '../../testing/show'
import { Recognised } from './Recognised'

const card = { id: 8, title: 'Memory card', kind: 'card', rev: 'B' } as unknown as FittedAssembly
const claim = (id: number, more: Partial<KnownClaim> = {}) => ({ id, name: 'Memory card, 512 KB', kind: 'card',
  maker: 'Tarn & Vole', source: '', by: 'number', sure: true, revision: 'same', alike: 0, why: 'its number is 4424-1',
  differs: [], suspect: [], ...more }) as unknown as KnownClaim
const answering = (claims: KnownClaim[], more: object = {}, kept: (asked: Asked) => object = () => ({})) =>
  serve((asked) => asked.method === 'GET'
    ? { body: { assemblyId: 8, title: 'Memory card', part: '4424-1', chips: '', claims, isDisputed: false, ...more } }
    : kept(asked) as ReturnType<typeof refusal>)

describe('what a card is known as', () => {
  it('is told with what differs and what it is suspected of; doubts say why, and two claims are both told',
    async () => {
    signIn('viewer')
    answering([claim(1, { differs: ['the record says 512 KB of memory'], suspect: [
      { what: 'U21 hot', test: 'measure it', state: 'open', on: '', by: '', note: '' },
      { what: 'C5 cracked', test: '', state: 'has it', on: '2026-04-01', by: 'Bram', note: 'crazed' },
      { what: 'U3 dead', test: '', state: 'clear', on: '2026-04-02', by: '', note: '' }] }),
    claim(2, { name: 'Relay card', sure: false, by: 'chips', differs: ['not told of what may be another'] })],
    { isDisputed: true })
    show(<Recognised assembly={card} mayWrite={false} />)
    const link = await screen.findByRole('link', { name: 'Memory card, 512 KB' })
    expect(link.getAttribute('href')).toBe('/library/known/1')
    expect(screen.getByText(/Records of the library differ/)).toBeTruthy()
    expect(screen.getByText(/But the record says 512 KB of memory/)).toBeTruthy()
    expect(screen.getByRole('link', { name: 'Relay card' }).closest('p')?.textContent).toContain('Perhaps')
    expect(screen.queryByText(/not told of what may be another/)).toBeNull()
    expect(screen.getAllByRole('listitem').map((item) => item.textContent.trim())).toEqual([
      'Known to suffer from: U21 hot. Find out: measure it.', 'Has: C5 cracked, 2026-04-01, Bram: crazed',
      'Does not have: U3 dead, 2026-04-02'])
    expect(screen.queryByRole('button')).toBeNull()
  })

  it('is named from where it lies, by its number, and what is refused stays', async () => {
    signIn('curator')
    const asked = answering([], { chips: '8x 41256' }, () =>
      refusal(422, 'refused', { errors: [{ location: 'body.numbers', message: '4424-1 is too short' }] }))
    const user = show(<Recognised assembly={card} mayWrite />)
    await user.click(await screen.findByRole('button', { name: 'Name it: part 4424-1' }))
    expect(screen.getByLabelText<HTMLInputElement>(/^What it is$/).value).toBe('Memory card')
    expect(screen.getByLabelText<HTMLInputElement>(/^Of revisions/).value).toBe('B')
    await user.click(screen.getByRole('button', { name: 'Name it everywhere' }))
    expect(await screen.findByText('4424-1 is too short')).toBeTruthy()
    expect(asked.find(({ method }) => method === 'POST')).toMatchObject({ path: '/api/known-assemblies',
      body: { kind: 'card', name: 'Memory card', numbers: '4424-1', revisions: 'B', chips: '8x 41256', signs: '' } })
  })

  it('says that it has what its kind is known for, or not', async () => {
    signIn('curator')
    const asked = answering([claim(1, { suspect: [{ what: 'U21 hot', test: '', state: 'open', on: '', by: '',
      note: '' }] })])
    const user = show(<Recognised assembly={card} mayWrite />)
    await user.click(await screen.findByRole('button', { name: 'It does not: U21 hot, Memory card' }))
    await user.type(screen.getByLabelText('What was seen'), 'cool')
    await user.click(screen.getByRole('button', { name: 'Note that it does not have it' }))
    await waitFor(() => { expect(asked.find(({ method }) => method === 'POST')).toMatchObject({
      path: '/api/assemblies/8/fault-checks', body: { knownId: 1, fault: 'U21 hot', hasIt: false, note: 'cool' } }) })
  })
})
