// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { Route, Routes } from 'react-router'
import { describe, expect, it } from 'vitest'

import type { DiaryEntry, DiaryWeek, Round, RoundStop, Rule } from '../../api/upkeep'
import { MachineUpkeep } from '../../features/upkeep/MachineUpkeep'
import { late } from '../../kit/hours'
import { signIn } from '../../testing/people'
import { refusal, serve } from '../../testing/server'
import { show } from '../../testing/show'
import { CalendarAddress } from '../account/CalendarAddress'
import Diary from './Diary'
import OneRound from './OneRound'
import { minutesIn } from './PlanForm'
import UpkeepRules from './UpkeepRules'

const rule = { id: 3, task: 'Measure the battery', everyMonths: 6, of: 'battery', className: 'Batteries', model: '', looks: true,
  runs: false, minutes: 5, measures: 'volts', how: 'Lid open', modelId: null, version: 1,
  cautions: [{ key: 'battery', word: 'Cells', text: 'Crust is caustic.' }] } as unknown as Rule
const stop = (n: number, more: Partial<RoundStop> = {}): RoundStop => ({ n, machineId: n, assemblyId: null,
  accession: `EH-000${String(n)}`, name: 'Lantern', place: `bay ${String(n)}`, because: 'nothing was done since 2020-01-01',
  overdueDays: 900, parts: [{ assemblyId: 9, board: 'Main board', place: 'BT1' }], findings: [], deed: null, ...more })
const deed = { id: 7, ruleId: 3, roundId: 4, task: rule.task, how: 'not' as const, on: '2026-11-30', why: 'locked', note: '',
  measured: '', found: '', takenOut: false, by: 'Bram', version: 2 }
const round = { id: 4, ruleId: 3, task: rule.task, on: '2026-11-30', endedOn: '', isOpen: true, stops: 3, done: 1, minutes: 0,
  note: '', by: 'Bram', version: 1, rule, took: 45, roundsOf: [stop(1, { deed }), stop(2, { findings: [{ key: 'f1',
    where: 'BT1', kind: 'corroded', severity: 'repair' }] }), stop(3, { machineId: null, assemblyId: 12, accession: '',
    name: 'Spare card' })] } as unknown as Round
const entry = (more: Partial<DiaryEntry>): DiaryEntry => ({ sort: 'due', kind: 'upkeep', on: '2026-12-01', what: rule.task, count: 1,
  accessions: ['EH-0001'], machineId: 1, overdueDays: -1, minutes: 5, who: '', isDone: false, id: 3, plan: null, ...more })
const plan = { id: 8, on: '2026-12-02', what: 'Fetch a lead', task: 'Fetch a lead', minutes: 90, who: 'Bram', doneOn: '',
  accession: '', version: 1 }
const load = (count: number, hours: number, untimed = 0) => ({ count, hours, untimed })
const week = { name: '2026-W49', from: '2026-11-30', to: '2026-12-06', isNow: true, due: load(2, 0.1), planned: load(1, 1.5),
  done: load(1, 0, 1), lines: [entry({ overdueDays: 900, count: 9, accessions: ['EH-0001', 'EH-0002'], machineId: null }),
    entry({ kind: 'deadline', what: 'Order: Reed & Rush', id: 5, machineId: null, accessions: [], minutes: 0 }),
    entry({ sort: 'planned', kind: 'plan', id: 8, plan: plan as unknown as DiaryEntry['plan'] }),
    entry({ sort: 'done', kind: 'survey', what: '', id: 2, minutes: 0 })] } as unknown as DiaryWeek

function page(room: React.ReactElement, at: string, answer: () => ReturnType<typeof refusal> | { status?: number;
  body?: unknown } = () => ({ body: deed }), who: 'curator' | 'viewer' = 'curator') {
  signIn(who)
  const asked = serve(({ method, path }) => {
    if (method !== 'GET') return answer()
    if (path === '/api/rounds/4') return { body: round }
    if (path === '/api/rounds/due') return { body: [{ rule, stops: 2, minutes: 10, oldest: '2020-07-01', away: 1, openRound: null }] }
    if (path === '/api/rounds') return { body: [{ ...round, isOpen: false }] }
    if (path.startsWith('/api/diary')) return { body: [week] }
    if (path === '/api/upkeep-rules/subjects') return { body: [{ key: 'machine', name: 'Machines as a whole' },
      { key: 'battery', name: 'Batteries' }] }
    if (path === '/api/upkeep-rules') return { body: [rule] }
    if (path === '/api/calendar-address') return { body: { madeAt: null, path: '' } }
    if (path.endsWith('/upkeep')) return { body: { due: [{ ruleId: 3, task: rule.task, on: '2026-12-01', overdueDays: 0,
      because: 'seen on 2026-06-01' }], always: [{ ...rule, task: 'Store it without', how: '', model: 'Lantern 2' }],
      done: [{ ...deed, id: 1 }] } }
    if (path.startsWith('/api/history')) return { body: { events: [], next: 0 } }
    return { body: [] }
  })
  return { user: show(<Routes><Route path="/diary/rounds/:id" element={room} /><Route path="*" element={room} /></Routes>, at),
    sent: () => asked.filter(({ method }) => method !== 'GET') }
}

describe('a round', () => {
  it('stands at the first stop of which nothing is said, and sends in one press what was seen there', async () => {
    const { user, sent } = page(<OneRound />, '/diary/rounds/4')
    expect(await screen.findByRole('heading', { name: '2. EH-0002 Lantern' })).toBeTruthy()
    expect(screen.getByText('1 of 3 said')).toBeTruthy()
    expect(screen.getByText(/not done; locked/)).toBeTruthy()
    expect(screen.getByText('Crust is caustic.')).toBeTruthy()
    await user.selectOptions(screen.getByLabelText('BT1, corroded (repair)'), 'worse')
    await user.type(screen.getByLabelText('Measured, in volts'), '3.6{Enter}')
    await waitFor(() => { expect(sent()[0]).toMatchObject({ path: '/api/rounds/4/stops/2', body: { how: 'did', measured: '3.6',
      now: [{ key: 'f1', how: 'worse' }], takenOut: false } }) })
    expect(sent()[0]?.body).not.toHaveProperty('was') // it would be moved on with other versions of the round
  })

  it('asks why something could not be done, corrects what was said from its version, and measures on no loose board', async () => {
    const { user, sent } = page(<OneRound />, '/diary/rounds/4')
    await user.click(await screen.findByText('Something is odd there'))
    await user.click(screen.getByRole('button', { name: 'Could not be done' }))
    expect(screen.getByText('Say why: not found, locked, no light.')).toBeTruthy()
    expect(sent()).toEqual([])
    await user.click(screen.getByRole('button', { name: 'Correct stop 1' }))
    await user.click(screen.getByRole('button', { name: 'Only seen' }))
    await waitFor(() => { expect(sent()[0]?.body).toMatchObject({ how: 'seen', was: 2 }) })
    await user.click(await screen.findByRole('button', { name: 'Say stop 3' }))
    expect(screen.getByRole('heading', { name: '3. Spare card' })).toBeTruthy()
    expect(screen.queryByLabelText('Measured, in volts')).toBeNull()
  })

  it('ends with the hours that it took, and is only read by who looks', async () => {
    const { user, sent } = page(<OneRound />, '/diary/rounds/4?open=end', () => ({ body: { ...round, isOpen: false } }))
    expect(await screen.findByText('2 stay due')).toBeTruthy()
    const hours = screen.getByLabelText('Hours that it took')
    expect(hours).toHaveProperty('value', '0.75')
    await user.clear(hours)
    await user.type(hours, 'long')
    await user.click(screen.getByRole('button', { name: 'End it' }))
    expect(screen.getByText('Write hours, as 1.5, or leave it empty.')).toBeTruthy()
    await user.clear(hours)
    await user.type(hours, '1,5')
    await user.click(screen.getByRole('button', { name: 'End it' }))
    await waitFor(() => { expect(sent()[0]?.body).toMatchObject({ version: 1, minutes: 90 }) })
  })

  it('is only read by who looks', async () => {
    page(<OneRound />, '/diary/rounds/4', undefined, 'viewer')
    expect(await screen.findByText(/EH-0002 Lantern/)).toBeTruthy()
    expect(screen.queryByRole('button')).toBeNull()
  })
})

describe('the diary', () => {
  it('tells apart what is due, planned and done, and begins a round', async () => {
    const { user, sent } = page(<Diary />, '/diary?from=2026-11-30', () => refusal(422, 'It is walked already.'))
    const shown = within(await screen.findByRole('region', { name: 'Week 2026-W49' }))
    expect(shown.getByText('6 min')).toBeTruthy()
    expect(shown.getByText('1 of unknown length')).toBeTruthy()
    expect(shown.getByText('2 years overdue')).toBeTruthy()
    expect(shown.getByText(/EH-0001, EH-0002 and 3 more/)).toBeTruthy()
    expect(shown.getByText(/surveyed/)).toBeTruthy()
    await user.click(await screen.findByRole('button', { name: 'Begin the round: Measure the battery' }))
    expect(await screen.findByText('It is walked already.')).toBeTruthy()
    expect(sent()[0]?.body).toEqual({ ruleId: 3 })
    await user.click(shown.getByRole('button', { name: 'Edit the plan Fetch a lead' }))
    await user.type(screen.getByLabelText('Done on'), '2026-12-02')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => { expect(sent()[1]?.body).toMatchObject({ on: '2026-12-02', what: 'Fetch a lead', minutes: 90,
      doneOn: '2026-12-02', version: 1 }) })
    expect([minutesIn('1,5'), minutesIn(''), minutesIn('x'), late(1), late(700), late(800)]).toEqual([90, 0, undefined,
      '1 day overdue', '700 days overdue', '2 years overdue'])
  })

  it('writes a rule, and shows what somebody else made of one meanwhile', async () => {
    const { user, sent } = page(<UpkeepRules />, '/diary/upkeep?open=rule', () => refusal(409, 'Changed.',
      { newer: { rule: { ...rule, everyMonths: 9, version: 2 } } }))
    await user.type(await screen.findByLabelText('Task'), 'Run it')
    await user.type(screen.getByLabelText('Every so many months'), 'often')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(screen.getByText('Write a whole number.')).toBeTruthy()
    await user.clear(screen.getByLabelText('Every so many months'))
    await user.type(screen.getByLabelText('Every so many months'), '12')
    await user.click(screen.getByLabelText('To have had it under power counts, too'))
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => { expect(sent()[0]?.body).toMatchObject({ task: 'Run it', everyMonths: 12, of: 'machine', runs: true }) })
    await user.click(screen.getByRole('button', { name: 'Cancel' }))
    await user.click(await screen.findByRole('button', { name: 'Edit Measure the battery' }))
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(await screen.findByText('months: 9')).toBeTruthy()
  })

  it('tells at the machine what always holds, and says in one press that something was done', async () => {
    const { user, sent } = page(<MachineUpkeep machineId={5} />, '/')
    expect(await screen.findByText('The Lantern 2:')).toBeTruthy()
    expect(screen.getByText(/not done: locked/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Done today: Measure the battery' }))
    expect(sent()[0]).toMatchObject({ path: '/api/machines/5/upkeep', body: { ruleId: 3, how: 'did' } })
  })

  it('makes a calendar address', async () => {
    const { user, sent } = page(<CalendarAddress />, '/', () => ({ body: { madeAt: '2026-11-30T08:00:00Z', path: '/api/calendar/X' } }))
    await user.click(await screen.findByRole('button', { name: 'Make an address' }))
    expect(sent()[0]).toMatchObject({ method: 'POST', path: '/api/calendar-address' })
  })
})
