// @vitest-environment jsdom
import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import { keepUnder } from '../../data/drafts'
import { signIn } from '../../testing/people'
import { serve } from '../../testing/server'
import { show } from '../../testing/show'
import Start from './Start'

const machine = { id: 3, accession: 'EH-0142', name: 'Meridian 2', place: 'Loft' }
const risk = { machine, assemblyId: 9, board: 'Main board', line: 4, place: 'BT1', class: 'nicd', name: 'Battery',
  subsystem: 'batteries', count: 1, rank: 28.6, overdueRatio: 14.3, isDue: true, why: 'Nobody looked for 12 years.' }
const event = { at: '2026-11-28T10:00:00Z', by: 'Bram', what: 'saved the sheet of Main board', mayUndo: [] }

const answers: Record<string, unknown> = {
  '/api/risks': { risks: [risk, { ...risk, line: 5, place: 'C5', isDue: false, overdueRatio: 0.2 }], total: 2, due: 1,
    next: 0 },
  '/api/in-hand': [{ kind: 'log', machineId: 3, accession: 'EH-0142', machine: 'Meridian 2', done: 9,
    since: '2026-11-20T10:00:00Z' }, { kind: 'survey', machineId: 4, accession: 'EH-0150', machine: 'Atelier', done: 1,
    since: '2026-11-21T10:00:00Z' }],
  '/api/jobs': [{ id: 1, machineId: 3, accession: 'EH-0142', title: 'Replace the battery', state: 'waiting for part',
    needs: ['NiMH 3.6V'] }, { id: 2, machineId: 4, accession: 'EH-0150', title: 'Clean contacts', state: 'in hand',
    left: 'slot 2' }],
  '/api/deadlines': [{ kind: 'lasting repair', on: '2026-11-20', overdueDays: 9, what: 'Wire across the trace', machineId: 3,
    accession: 'EH-0142', id: 4 }, { kind: 'goes back', on: '2026-12-01', overdueDays: -2, what: 'insulation tester, to Gull Point',
    machineId: null, accession: '', id: 5 }, { kind: 'order', on: '2026-12-02', overdueDays: -3, what: 'Reed & Rush',
    machineId: null, accession: '', id: 7 }],
  '/api/personal-data': [{ id: 1, machineId: 3, accession: 'EH-0142', medium: 'disk', decision: 'open' }],
  '/api/machines': { machines: [machine], total: 9, next: '' },
  '/api/history': { events: [{ ...event, id: 2, machineId: 3, accession: 'EH-0142' },
    { ...event, id: 1, machineId: 3, accession: 'EH-0142', what: 'entered it' }], next: 0 },
  '/api/looks-ahead': { overdue: 16, months: [{ month: '2026-11', looks: 0 }, { month: '2026-12', looks: 3 }] },
  '/api/findings-by-year': [{ year: 2025, hazard: 1, repair: 6, watch: 2, cosmetic: 0, machines: 8 }],
  '/api/unknowns/counts': [{ sort: 'chip', count: 24, more: true }],
  '/api/machines/facets': { places: [{ value: '', count: 4 }, { value: 'Loft', count: 2 }], makers: [],
    years: [{ value: '1985', count: 2 }], stages: [], statements: [] },
}

const page = (role: 'curator' | 'viewer' = 'curator', without: string[] = []) => {
  signIn(role)
  serve(({ path }) => {
    const asked = path.split('?')[0] ?? ''
    return without.includes(asked) ? 'no connection' : { body: answers[asked] }
  })
  return show(<Start />)
}
const rows = async (label: string) => within(await screen.findByRole('table', { name: label })).getAllByRole('row')
  .map((row) => row.textContent)

describe('the start page', () => {
  it('lists what is due, in hand, waiting, in conflict and changed, each leading on', async () => {
    keepUnder('finding of 3', { fields: {} })
    const user = page()
    const due = await screen.findByRole('link', { name: 'Main board, BT1' })
    expect(due.getAttribute('href')).toBe('/bench/3/take-stock?at=9.4')
    expect(screen.queryByText(/C5/), 'what is not due yet').toBeNull()
    expect(screen.getByText('14.3')).toBeTruthy()
    expect((await screen.findByText(/Wire across the trace/)).textContent).toContain('9 days overdue, 2026-11-20')
    expect(screen.getByRole('link', { name: 'Goes back' }).getAttribute('href')).toBe('/stores/parts?search=insulation%20tester')
    expect(screen.getByRole('link', { name: 'Order' }).getAttribute('href')).toBe('/stores/orders?order=7')
    await user.click(screen.getByText('Battery'))
    expect(screen.getByText(/Nobody looked for 12 years/)).toBeTruthy()
    const inHand = await screen.findByText(/is open, 9 steps/)
    expect(within(inHand).getByRole('link').getAttribute('href')).toBe('/bench/3/open-up')
    expect(screen.getByText(/1 subsystem looked at/)).toBeTruthy()
    expect((await screen.findByText(/waits for NiMH 3.6V/)).textContent).toContain('Replace the battery')
    expect(screen.getByText(/is in hand; left: slot 2/)).toBeTruthy()
    expect((await screen.findByText(/to be decided/)).textContent).toContain('disk')
    expect(screen.getByRole('link', { name: '1 thing on this device' }).getAttribute('href')).toBe('/unsent')
    expect((await screen.findByRole('link', { name: 'All 9' })).getAttribute('href'))
      .toBe('/collection?statement=disputed')
    expect(screen.getByText(/saved the sheet of Main board/)).toBeTruthy()
    expect(screen.queryByText(/entered it/), 'the newest of each machine').toBeNull()
    expect(document.title).toBe('Start - Frugal Heron')
  })

  it('plots what comes, how it stands, what nobody knows, and where and how old it is, with its numbers', async () => {
    page()
    expect(await rows('Looks that fall due')).toEqual(['Monthlooks', 'overdue16', '2026-110', '2026-123'])
    expect(await rows('Condition over the years')).toContain('2025 8 surveyed1 · 6 · 2 · 0')
    expect(await rows('Not known yet')).toContain('chip24 and more')
    expect(await rows('Machines by place')).toEqual(['Placemachines', 'no place4', 'Loft2'])
    expect(screen.getByRole('link', { name: '1985' }).getAttribute('href')).toBe('/collection?year=1985')
    const bars = document.querySelectorAll('table[aria-label="Condition over the years"] td span span')
    expect([...bars].map((bar) => [bar.getAttribute('title'), Math.round(parseFloat((bar as HTMLElement).style.width))]))
      .toEqual([['hazard 1', 11], ['repair 6', 67], ['watch 2', 22]])
  })

  it('says in an empty collection how one begins', async () => {
    signIn('curator')
    const none = { places: [], makers: [], years: [], stages: [], statements: [] }
    serve(({ path }) => ({ body: path.startsWith('/api/machines/facets') ? none : answers[path.split('?')[0] ?? ''] }))
    show(<Start />)
    expect((await screen.findByRole('link', { name: 'Enter a machine' })).getAttribute('href')).toBe('/collection/new')
  })

  it('says what it does not know without a connection, and shows the rest', async () => {
    page('viewer', ['/api/looks-ahead'])
    expect(await screen.findByText(/Looks that fall due was not seen on this device before/)).toBeTruthy()
    expect(screen.queryByText(/to be decided/), 'a viewer decides nothing').toBeNull()
    expect(await screen.findByText(/is open, 9 steps/)).toBeTruthy()
  })
})
