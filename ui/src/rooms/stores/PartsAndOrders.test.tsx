// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { Needs as NeedsOf, Order, Stock } from '../../api/stores'
import { signIn } from '../../testing/people'
import { refusal, serve } from '../../testing/server'
import { show } from '../../testing/show'
import Needs from './Needs'
import Orders from './Orders'
import Parts from './Parts'

const drawer = { id: 3, what: 'NiMH 3.6V', kind: 'component', condition: 'untested', count: 4, free: 3, minimum: 5, isLow: true,
  place: 'Store, box 4', setAside: [{ id: 8, jobId: 2, job: 'Other cell', machineId: 6, accession: 'EH-0126', need: 'NiMH 3.6V',
    stockId: 3, orderId: null, line: 0, count: 1 }], from: { machineId: 5, accession: 'EH-0107', board: 'Clock card', place: 'BT1',
    jobId: 9, job: 'Replace the battery', on: '2026-11-01' }, version: 2 } as unknown as Stock
const order = { id: 7, supplier: 'Reed & Rush', number: '', orderedOn: '2026-11-12', dueOn: '2026-11-20', note: '', isOpen: true,
  lateDays: 9, arrivals: [], setAside: [], version: 1, lines: [{ n: 1, what: 'fuse 4A', count: 10, arrived: 2, dead: 1, toCome: 8,
    promised: 0, priceCents: 20 }] } as unknown as Order
const job = { jobId: 2, job: 'Fuses', machineId: 6, accession: 'EH-0126' }
const needs = { needs: [
  { ...job, need: '2 x 27128', count: 2, state: 'short', missing: 1, setAside: [], coming: [], taken: [{ stockId: 5, what: '27128-25',
    jobId: 1, job: 'Copy', machineId: 5, accession: 'EH-0107' }], offers: [{ stockId: 4, what: '27128-20', place: 'Store', free: 1,
    count: 1, grade: 'better', why: ['200 ns where 250 is asked for'] }] },
  { ...job, need: 'fuse 4A', count: 1, state: 'on order', missing: 0, setAside: [], taken: [], offers: [], coming: [{ orderId: 7,
    supplier: 'Reed & Rush', line: 1, what: 'fuse 4A', dueOn: '2026-11-20', count: 1, isSetAside: false, grade: 'exact', why: [] }] }],
  toOrder: [{ what: '27128', count: 1, refill: 0, jobs: [job] }],
  unblocks: [{ orderId: 7, jobs: [{ ...job, with: [8] }] }] } as unknown as NeedsOf

const page = (room: React.ReactElement, at: string,
  answer: () => { status?: number; body: unknown } = () => ({ body: {} })) => {
  signIn('curator')
  const asked = serve(({ method, path }) => {
    if (method !== 'GET') return answer()
    if (path.startsWith('/api/needs/donors')) return { body: [{ machineId: null, accession: '', machine: '', assemblyId: 12,
      assembly: 'Spare card', line: 4, count: 1, marking: '27128-25' }] }
    if (path === '/api/needs') return { body: needs }
    if (path === '/api/orders') return { body: [order] }
    if (path.startsWith('/api/stock')) return { body: { parts: [drawer], next: 0 } }
    return { body: path === '/api/collection' ? { currency: 'EUR' } : [] }
  })
  return { user: show(room, at), asked, sent: () => asked.filter(({ method }) => method !== 'GET') }
}

describe('the stores', () => {
  it('tell for whom a part is, where it was, and that few are left; a figure that is none is named', async () => {
    const { user, sent } = page(<Parts />, '/stores/parts?open=part', () => ({ status: 201, body: drawer }))
    const row = within(await screen.findByRole('row', { name: /NiMH/ }))
    expect(row.getByText('EH-0126: Other cell')).toBeTruthy()
    expect(row.getByText('Replace the battery, 2026-11-01')).toBeTruthy()
    expect(row.getByText('of 5')).toBeTruthy()
    await user.type(screen.getByLabelText('What it is'), '470u/16V radial')
    await user.type(screen.getByLabelText('Count'), 'many')
    await user.type(screen.getByLabelText('Price of one, EUR'), '0.35')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(screen.getByText('Write a whole number of pieces.')).toBeTruthy()
    expect(sent()).toEqual([])
    await user.clear(screen.getByLabelText('Count'))
    await user.type(screen.getByLabelText('Count'), '12')
    await user.selectOptions(screen.getByLabelText('State'), 'new')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => { expect(sent()[0]?.body).toMatchObject({ what: '470u/16V radial', count: 12, priceCents: 35,
      condition: 'new', kind: 'component', minimum: 0 }) })
  })

  it('have the drawings of a part, and lead to the machine that it was lent out of', async () => {
    signIn('curator')
    const lent = { ...drawer, from: null, files: 1, backBy: '2027-06-30', backTo: 'EH-0107', lentBy: 5 }
    const drawing = { id: 40, kind: 'picture', fileName: 'rail.png', caption: 'the rail, 130 x 9 x 4 mm', stockId: 3, version: 1 }
    const asked = serve(({ path }) => ({ body: path.startsWith('/api/stock/3/attachments') ? { attachments: [drawing], next: 0 }
      : path.startsWith('/api/stock') ? { parts: [lent], next: 0 } : [] }))
    const user = show(<Parts />, '/stores/parts')
    expect((await screen.findByRole('link', { name: 'EH-0107' })).getAttribute('href')).toBe('/bench/5')
    expect(asked.some(({ path }) => path.includes('attachments')), 'nothing is read before it is asked for').toBe(false)
    await user.click(screen.getByRole('button', { name: 'Drawings (1) and pictures of NiMH 3.6V' }))
    expect(await screen.findByRole('button', { name: /Open the rail, 130 x 9 x 4 mm/ })).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Close' }))
    expect(screen.queryByText('Pictures and documents')).toBeNull()
  })

  it('show what somebody else made of a drawer meanwhile', async () => {
    const { user } = page(<Parts />, '/stores/parts', () => refusal(409, 'Somebody changed it.', { newer: { stock: { ...drawer, count: 9, version: 3 } } }))
    await user.click(await screen.findByRole('button', { name: 'Edit NiMH 3.6V' }))
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(await screen.findByText('count: 9')).toBeTruthy()
  })

  it('say what is short and why, set aside what is there, and tell which boards hold the rest', async () => {
    const { user, sent } = page(<Needs />, '/stores/needs?job=2', () => ({ status: 201, body: {} }))
    expect(await screen.findByText('short, 1 missing')).toBeTruthy()
    expect(screen.getByText('200 ns where 250 is asked for')).toBeTruthy()
    expect(screen.getByText(/27128-25 goes first to/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Set 1 aside: 27128-20 for EH-0126' }))
    expect(sent()[0]?.body).toEqual({ need: '2 x 27128', stockId: 4, count: 1 })
    await user.click(screen.getByRole('button', { name: 'Set 1 aside: fuse 4A of the order, for EH-0126' }))
    await waitFor(() => { expect(sent()[1]?.body).toEqual({ need: 'fuse 4A', orderId: 7, line: 1, count: 1 }) })
    await user.click(screen.getByRole('button', { name: 'Which boards hold it? 2 x 27128' }))
    expect((await screen.findByRole('link', { name: 'Stores: Spare card' })).getAttribute('href')).toBe('/stores/12?at=12.4')
  })

  it('write down an order of what is short, and book what came of one, dead ones too', async () => {
    const { user, sent } = page(<Orders />, '/stores/orders?open=order&fill=short', () => ({ status: 201, body: order }))
    const form = within((await screen.findByLabelText('Ordered of')).closest('form') ?? document.body)
    expect(form.getByLabelText<HTMLInputElement>('What').value).toBe('27128')
    await user.type(form.getByLabelText('Ordered of'), 'Saltmarsh')
    await user.click(form.getByRole('button', { name: 'Add a line' }))
    const second = within(form.getByRole('group', { name: 'Line 2' }))
    await user.type(second.getByLabelText('What'), 'fuse 2A')
    await user.type(second.getByLabelText('Count'), '0')
    await user.click(form.getByRole('button', { name: 'Save' }))
    expect(second.getByText('Write a whole number of pieces.')).toBeTruthy()
    await user.clear(second.getByLabelText('Count'))
    await user.type(second.getByLabelText('Count'), '20')
    await user.click(form.getByRole('button', { name: 'Save' }))
    expect(sent()[0]?.body).toMatchObject({ supplier: 'Saltmarsh', lines: [{ what: '27128', count: 1 }, { what: 'fuse 2A',
      count: 20 }] })

    const one = within(await screen.findByRole('region', { name: 'Order of Reed & Rush' }))
    expect(one.getByText(/9 days late/)).toBeTruthy()
    expect(one.getByText(/1 came dead/)).toBeTruthy()
    expect(one.getByText(/with another order/)).toBeTruthy()
    await user.click(one.getByRole('button', { name: 'Book what came: fuse 4A' }))
    await user.clear(one.getByLabelText('Good ones of fuse 4A'))
    await user.type(one.getByLabelText('Good ones of fuse 4A'), '3')
    await user.type(one.getByLabelText('Dead on arrival'), '1')
    await user.click(one.getByRole('button', { name: 'Save' }))
    await waitFor(() => { expect(sent().at(-1)?.body).toMatchObject({ version: 1, line: 1, count: 3, dead: 1 }) })
  })
})
