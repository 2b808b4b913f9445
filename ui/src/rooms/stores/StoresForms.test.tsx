// @vitest-environment jsdom
import 'fake-indexeddb/auto'

import { cleanup, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'

import type { JobNeed, Order, Stock } from '../../api/stores'
import { dropDrafts, openDrafts } from '../../data/drafts'
import { signIn } from '../../testing/people'
import { refusal, serve } from '../../testing/server'
import { show } from '../../testing/show'
import Needs from './Needs'
import Orders from './Orders'
import Parts from './Parts'

const order = { id: 7, supplier: 'Reed & Rush', number: 'RR-1', orderedOn: '2026-11-12', dueOn: '', note: 'by post', isOpen: true,
  lateDays: 0, arrivals: [], setAside: [{ id: 5, jobId: 2, job: 'Fuses', machineId: 6, accession: 'EH-0126', need: 'fuse 4A',
    stockId: null, orderId: 7, line: 1, count: 1 }], version: 1, lines: [{ n: 1, what: 'fuse 4A', count: 10, arrived: 0, dead: 0,
    toCome: 10, promised: 1, priceCents: 20 }] } as unknown as Order
const held = { jobId: 2, job: 'Fuses', machineId: 6, accession: 'EH-0126', need: 'fuse 4A', count: 1, state: 'on order',
  missing: 0, setAside: order.setAside, offers: [], coming: [], taken: [] } as unknown as JobNeed

type Answers = { stock?: Stock[]; orders?: Order[]; needs?: JobNeed[]
  write?: () => { status?: number; body: unknown } }

const page = (room: React.ReactElement, at: string, { stock = [], orders = [], needs = [], write }: Answers) => {
  signIn('curator')
  const asked = serve(({ method, path }) => {
    if (method !== 'GET') return write?.() ?? { body: {} }
    if (path === '/api/needs') return { body: { needs, toOrder: [], unblocks: [] } }
    if (path === '/api/orders') return { body: orders }
    if (path.startsWith('/api/stock')) return { body: { parts: stock, next: 0 } }
    return { body: path === '/api/collection' ? { currency: 'EUR' } : [] }
  })
  return { user: show(room, at), sent: () => asked.filter(({ method }) => method !== 'GET') }
}

beforeEach(async () => {
  await openDrafts(1)
  await dropDrafts()
  await openDrafts(1)
})

describe('empty stores', () => {
  it('say what to do first', async () => {
    page(<Parts />, '/stores/parts', {})
    expect(await screen.findByText(/No drawer is written down yet/)).toBeTruthy()
    cleanup()
    page(<Parts />, '/stores/parts?search=foam', {})
    expect((await screen.findByRole('link', { name: 'Show all' })).getAttribute('href')).toBe('/stores/parts')
    cleanup()
    page(<Needs />, '/stores/needs', {})
    expect(await screen.findByText(/No open job waits for a part/)).toBeTruthy()
    cleanup()
    page(<Orders />, '/stores/orders', {})
    expect(await screen.findByText(/Nothing is on order/)).toBeTruthy()
  })
})

describe('an order', () => {
  it('keeps all lines that were typed, and is refused in words where it cannot be', async () => {
    const first = page(<Orders />, '/stores/orders?open=order', {})
    await first.user.click(await screen.findByRole('button', { name: 'Add a line' }))
    await first.user.type(within(screen.getByRole('group', { name: 'Line 2' })).getByLabelText('What'), 'belt 120 mm')
    cleanup()
    const { user, sent } = page(<Orders />, '/stores/orders?open=order', { write: () => refusal(422, 'It is refused.',
      { errors: [{ location: 'body.lines', message: 'line 1 does not say what it is' }] }) })
    const again = within(await screen.findByRole('group', { name: 'Line 2' }))
    expect(again.getByLabelText<HTMLInputElement>('What').value).toBe('belt 120 mm')
    await user.type(again.getByLabelText('One, EUR'), 'much')
    await user.type(screen.getByLabelText('Ordered of'), 'Saltmarsh')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(screen.getByText(/Write an amount as 371.00/)).toBeTruthy()
    expect(sent()).toEqual([])
    await user.clear(again.getByLabelText('One, EUR'))
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect((await screen.findByRole('alert')).textContent).toContain('line 1 does not say what it is')
    expect(sent()[0]?.body).toMatchObject({ supplier: 'Saltmarsh', lines: [{ n: 0, what: 'belt 120 mm', count: 1 }] })
  })

  it('is changed line by line under its numbers, and says for whom something is', async () => {
    const { user, sent } = page(<Orders />, '/stores/orders', { orders: [order] })
    const one = within(await screen.findByRole('region', { name: 'Order of Reed & Rush, RR-1' }))
    expect(one.getByRole('link', { name: 'EH-0126: Fuses' })).toBeTruthy()
    expect(one.getByText(/nobody said when it comes/)).toBeTruthy()
    await user.click(one.getByRole('button', { name: 'Edit the order of Reed & Rush, RR-1' }))
    await user.clear(screen.getByLabelText('Count'))
    await user.type(screen.getByLabelText('Count'), '12')
    await user.type(screen.getByLabelText('Should be here by'), '2026-12-24')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => { expect(sent()[0]?.body).toEqual({ version: 1, supplier: 'Reed & Rush', number: 'RR-1',
      orderedOn: '2026-11-12', dueOn: '2026-12-24', note: 'by post', lines: [{ n: 1, what: 'fuse 4A', count: 12, priceCents: 20 }] }) })
  })

  it('is booked in whole pieces only', async () => {
    const { user, sent } = page(<Orders />, '/stores/orders', { orders: [order] })
    await user.click(await screen.findByRole('button', { name: 'Book what came: fuse 4A' }))
    await user.clear(screen.getByLabelText('Good ones of fuse 4A'))
    await user.type(screen.getByLabelText('Good ones of fuse 4A'), 'some')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(screen.getByText('Write a whole number of pieces.')).toBeTruthy()
    expect(sent()).toEqual([])
  })
})

describe('what is set aside', () => {
  it('is given back by one press; what somebody else did meanwhile is said', async () => {
    const { user, sent } = page(<Needs />, '/stores/needs', { needs: [held], write: () => refusal(404, 'It is gone.') })
    expect(await screen.findByText('1 set aside, of an order')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Release fuse 4A for EH-0126' }))
    await waitFor(() => { expect(sent()[0]?.path).toBe('/api/set-asides/5/release') })
    expect((await screen.findByRole('alert')).textContent).toContain('It is gone.')
  })
})

describe('a drawer', () => {
  it('says of what was made why, and what must go back', async () => {
    const made = { id: 3, what: 'slot rail', kind: 'made', condition: 'new', count: 2, free: 2, minimum: 0, isLow: false, place: '',
      setAside: [], from: null, model: 'Meridian 2', material: 'PETG', why: 'the old ones snap', backBy: '2027-02-28',
      backTo: 'Gull Point Light', version: 2 } as unknown as Stock
    const { user, sent } = page(<Parts />, '/stores/parts', { stock: [made] })
    const row = within(await screen.findByRole('row', { name: /slot rail/ }))
    for (const words of ['for Meridian 2', 'PETG', 'the old ones snap']) expect(row.getByText(words)).toBeTruthy()
    expect(row.getByText(/back by 2027-02-28 to Gull Point Light/)).toBeTruthy()
    await user.click(row.getByRole('button', { name: 'Edit slot rail' }))
    await user.click(screen.getByRole('button', { name: 'Delete slot rail' }))
    await waitFor(() => { expect(sent()[0]?.path).toContain('/api/stock/3/void') })
  })
})
