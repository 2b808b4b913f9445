// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { Offer, Want, Weighed } from '../../api/wanted'
import { signIn } from '../../testing/people'
import { serve } from '../../testing/server'
import { show } from '../../testing/show'
import Wanted from './Wanted'

const want = (id: number, more: object) => ({ id, what: `thing ${String(id)}`, kind: 'manual', alerts: [], state: 'open',
  since: '2019-05-01', note: '', accession: '', version: 1, ...more }) as unknown as Want
const weighed: Weighed = { over: 'more is asked than the limit', held: [{ name: 'Lantern', count: 2, doubt: 'ordinary' }],
  stores: [{ id: 4, what: 'fuse', count: 3 }], prices: [{ what: 'Estate', on: '2024', cents: 3100, currency: '', kind: 'lot',
    id: 9 }], hits: [{ wantId: 1, by: ['handbook'], doubt: '', what: 'thing 1', accession: 'EH-0142', machineId: 3,
    mostCents: 4000 }, { wantId: 2, by: ['lantern'], doubt: 'an ordinary word', what: 'thing 2', accession: '',
    machineId: null, mostCents: null }] }
const offer = (id: number, more: object) => ({ id, title: `offer ${String(id)}`, text: 'with a lantern', state: 'open',
  seenOn: '2026-11-20', lotId: null, weighed, version: 2, ...more }) as unknown as Offer

const page = (role: 'curator' | 'viewer') => {
  signIn(role)
  const asked = serve(({ method, path }) => path.startsWith('/api/wants') && method === 'GET'
    ? { body: [want(1, { accession: 'EH-0142', machineId: 3 }), want(2, {}), want(3, { state: 'found', note: 'at last' })] }
    : path === '/api/offers' && method === 'GET' ? { body: [offer(7, { askingCents: 5000 }), offer(8, { lotId: 9 })] }
      : path === '/api/offers/read' ? { body: weighed } : path === '/api/collection' ? { body: { currency: 'EUR' } }
        : { status: method === 'GET' ? 200 : 201, body: method === 'GET' ? { machines: [] } : {} })
  return { asked, user: show(<Wanted />) }
}
const sent = (asked: { method: string; path: string; body: unknown }[], path: string) =>
  asked.filter((one) => one.method !== 'GET' && one.path === path).map(({ body }) => body)

describe('what is wanted, and what is offered', () => {
  it('tells what an offer holds, what of it is in doubt, and what was paid before', async () => {
    page('viewer')
    const one = within(await screen.findByRole('article', { name: 'offer 7' }))
    const hits = within(one.getByRole('list', { name: 'Looked for' })).getAllByRole('listitem')
    expect(hits.map((hit) => hit.textContent)).toEqual([' thing 1 for EH-0142, at most 40.00 EUR by handbook',
      ' perhaps thing 2 by lantern; an ordinary word'])
    expect(one.getByText(/more is asked than the limit/)).toBeTruthy()
    expect(one.getByText(/Held already/).textContent).toContain('perhaps 2 x Lantern')
    expect(one.getByRole('link', { name: 'Estate' }).getAttribute('href')).toBe('/collection/arrivals/9')
    expect(screen.queryByRole('button', { name: /It is here/ }), 'a lot is the curator\'s').toBeNull()
    expect(within(screen.getByRole('article', { name: 'offer 8' })).queryByRole('button', { name: /Delete/ })).toBeNull()
  })

  it('makes a lot of an offer, with what is plainly in it found', async () => {
    const { asked, user } = page('curator')
    await user.click(await screen.findByRole('button', { name: 'It is here: offer 7' }))
    expect(screen.getByRole('checkbox', { name: 'thing 1' })).toHaveProperty('checked', true)
    expect(screen.getByRole('checkbox', { name: 'thing 2' })).toHaveProperty('checked', false)
    await user.clear(screen.getByRole('textbox', { name: /^Price/ }))
    await user.type(screen.getByRole('textbox', { name: /^Price/ }), '48')
    await user.click(screen.getByRole('button', { name: 'Enter the lot' }))
    await waitFor(() => { expect(sent(asked, '/api/offers/7/lot')).toEqual([{ version: 2, method: 'purchase', found: [1],
      arrived: '', priceCents: 4800 }]) })
  })

  it('compares an offer while it is typed, and keeps alert words one by one', async () => {
    const { asked, user } = page('curator')
    await user.click(await screen.findByRole('button', { name: 'Note an offer' }))
    await user.type(screen.getByRole('textbox', { name: 'What is offered' }), 'A box')
    await waitFor(() => { expect(sent(asked, '/api/offers/read').at(-1)).toEqual({ title: 'A box', text: '' }) })
    await user.type(screen.getByRole('textbox', { name: /^Asked/ }), 'much')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(sent(asked, '/api/offers'), 'no amount: nothing is sent').toEqual([])
    await user.click(screen.getByRole('button', { name: 'Cancel' }))
    await user.click(screen.getByRole('button', { name: 'Write down what is wanted' }))
    await user.type(screen.getByRole('textbox', { name: /^What is looked for/ }), 'Keyboard')
    await user.type(screen.getByRole('textbox', { name: /^Known in offers by/ }), 'lantern keyboard; ; kb 2')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => { expect(sent(asked, '/api/wants')).toMatchObject([{ what: 'Keyboard', kind: 'other',
      alerts: ['lantern keyboard', 'kb 2'] }]) })
  })

  it('shows what was found or given up when asked for', async () => {
    const { user } = page('viewer')
    await user.click(await screen.findByRole('button', { name: '1 found or given up' }))
    expect(screen.getByText('found: at last')).toBeTruthy()
  })
})
