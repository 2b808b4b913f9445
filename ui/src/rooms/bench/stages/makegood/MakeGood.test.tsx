// @vitest-environment jsdom
import 'fake-indexeddb/auto'

import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'

import type { Machine } from '../../../../api/machines'
import { openOutbox } from '../../../../data/outbox'
import type { Treatment } from '../../../../api/work'
import { signIn } from '../../../../testing/people'
import { refusal, serve } from '../../../../testing/server'
import { show } from '../../../../testing/show'
import { MakeGood } from './MakeGood'

// A file is on its way by another road than what is asked here.
vi.mock('../../../../api/attachments', async (original) => ({ ...await original<typeof import('../../../../api/attachments')>(),
  sendFile: () => Promise.resolve({ id: 40 }) }))

const machine = { id: 3, accession: 'EH-0142', name: 'Meridian 2' } as Machine
const usual = { key: 'battery-out', title: 'Take the battery out', minutes: 30, reversible: 'yes', tools: ['gloves'],
  needs: ['vinegar'], steps: ['take pictures', 'take it out'], forget: 'the picture of its polarity', undo: 'fit one again',
  proof: 'below 1 ohm' }
const ending = { on: '', new: '', takenOut: false, oldPart: '', proven: false, provenBy: '', reversible: '', undo: '', by: '', proofs: [] }
const job = { id: 4, machineId: 3, accession: 'EH-0142', machine: 'Meridian 2', title: 'Take the battery out',
  template: 'battery-out', findingKeys: ['f1'], assemblyId: 9, place: 'BT1', needs: [], proof: 'below 1 ohm', state: 'in hand',
  unproven: false, minutes: 15, left: '', why: '', ending, usual, cautions: [], by: '', version: 2,
  picturesBefore: [31], measured: [{ id: 1, on: '2026-03-02', point: 'BT1', said: 'BT1 2.1 V: fail', verdict: 'fail', after: false }] }
const treatment = { stage: { state: 'in hand', count: 1 }, usual: [usual], minutes: 30, spent: 15, waitsFor: [],
  again: [{ assemblyId: 9, usual: 'battery-out', times: 3, minutes: 80, next: 30, first: '2024-03-01', last: '2026-05-02' }],
  jobs: [job, { ...job, id: 5, title: 'Clean contacts', state: 'done', unproven: true,
    proofDue: '2027-11-02', ending: { ...ending, on: '2026-11-01', reversible: 'no', undo: 'nothing',
      proofs: [{ on: '2026-11-01', passed: true, said: '', by: '' }, { on: '2026-11-02', passed: false, said: '', by: '' }] } }],
  wanting: [{ key: 'f2', where: 'Main board, BT2', kind: 'leaking', severity: 'hazard', assemblyId: 9, place: 'BT2',
    usual: ['battery-out'] }] } as unknown as Treatment

const inStores = [{ id: 1, what: 'NiCd 3.6V', free: 1, place: 'Loft', model: '', from: { machineId: 3, board: 'Main board',
  place: 'BT1', on: '2026-11-01' } }, { id: 2, what: 'slot rail', free: 4, place: '', model: 'Meridian 2', from: null,
  why: 'the old ones snap' }]

const page = (answer: () => { status?: number; body: unknown } | 'no connection') => {
  signIn('curator')
  const asked = serve(({ method, path }) => method === 'POST' ? answer()
    : { body: path.endsWith('/treatment') ? treatment : path.endsWith('/machines/3/stock') ? inStores : [] })
  return { user: show(<MakeGood machine={machine} />), asked }
}

describe('making good', () => {
  it('puts down as one job the swaps that leave bad chips on one board', async () => {
    treatment.gather = { onto: 9, bad: 2, boards: { 9: 'Memory 1', 8: 'Memory 2' }, swaps: [{ type: '4164',
      bad: { board: 8, place: 'U5' }, good: { board: 9, place: 'U1' } }] }
    const { user, asked } = page(() => ({ status: 201, body: job }))
    await user.click(await screen.findByRole('button', { name: 'Put it down as a job' }))
    treatment.gather = null
    expect(asked.find(({ method }) => method === 'POST')?.body).toEqual({ title: 'Gather the bad chips on Memory 1',
      assemblyId: 9, note: 'Swap 4164: U5 of Memory 2 with U1 of Memory 1' })
  })

  it('puts down the usual job of a finding by one press, and ends one with what the sheet is to say', async () => {
    const { user, asked } = page(() => ({ status: 201, body: job }))
    await user.click(await screen.findByRole('button', { name: 'Take the battery out: Main board, BT2' }))
    expect(asked.at(-1)?.body ?? asked.find(({ method }) => method === 'POST')?.body).toBeTruthy()
    expect(asked.find(({ method }) => method === 'POST')?.body).toEqual({ title: 'Take the battery out',
      template: 'battery-out', findingKeys: ['f2'], assemblyId: 9, place: 'BT2' })
    await user.click(screen.getByRole('button', { name: 'Done: Take the battery out' }))
    expect(screen.getByText(/ends done, unproven/)).toBeTruthy()
    expect(screen.queryByLabelText('What is in now at BT1'), 'the place is empty then').toBeNull()
    await user.click(screen.getByRole('checkbox', { name: 'Tested: below 1 ohm' }))
    await user.type(screen.getByLabelText('What the test said'), '0.4 ohm')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(asked.filter(({ method }) => method === 'POST').at(-1)?.body).toMatchObject({ version: 2, takenOut: true, new: '',
      proven: true, provenBy: '0.4 ohm', remain: false })
  })

  it('says what is forgotten, what is unproven, and what cannot be undone', async () => {
    page(() => ({ body: job }))
    expect((await screen.findByText('Easily forgotten:')).parentElement?.textContent).toContain('picture of its polarity')
    expect(screen.getByText(/done, unproven/)).toBeTruthy()
    expect(screen.getByText(/3 times between 2024-03-01 and 2026-05-02, 1 h 20 min in all/)).toBeTruthy()
    const stores = within(await screen.findByRole('region', { name: 'In the stores for it' }))
    expect(stores.getByText(/was in Main board, BT1, taken out on 2026-11-01/)).toBeTruthy()
    expect(stores.getByText(/for Meridian 2; the old ones snap/)).toBeTruthy()
    const changed = within(screen.getByRole('region', { name: 'What was changed' }))
    expect(changed.getByText('cannot be undone')).toBeTruthy()
  })

  it('takes what the test said later, and tells when it is due again', async () => {
    const { user, asked } = page(() => ({ body: job }))
    await user.click(await screen.findByText(/1 job is ended/))
    expect(screen.getByText(/tested 2026-11-01, 2026-11-02/)).toBeTruthy()
    expect(screen.getByText(/by 2027-11-02, unless it runs before/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Test made: Clean contacts' }))
    await user.click(screen.getByRole('checkbox', { name: 'It passed' }))
    await user.type(screen.getByLabelText('What the test said'), '12 ohm')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(asked.find(({ method }) => method === 'POST')).toMatchObject({ path: '/api/jobs/5/proof', body: { version: 2, on: '',
      said: '12 ohm', passed: false } })
  })

  it('keeps what was pressed without a connection, and does not call it refused', async () => {
    await openOutbox(1, { send: () => Promise.reject(new TypeError()), onSent: () => undefined,
      onStranger: () => undefined, onUnreachable: () => undefined })
    const { user } = page(() => 'no connection')
    await user.click(await screen.findByRole('button', { name: 'Take the battery out: Main board, BT2' }))
    expect(await screen.findByText(/Kept on this device/)).toBeTruthy()
    expect(screen.queryByText('Not saved.')).toBeNull()
  })

  it('asks why a job is not to be done, and says what is left of one that was done in part', async () => {
    const { user, asked } = page(() => ({ body: job }))
    await user.click(await screen.findByRole('button', { name: 'Waits, in part, declined: Take the battery out' }))
    const form = within(screen.getByRole('region', { name: 'Jobs' }))
    await user.selectOptions(form.getByLabelText('It is'), 'declined')
    expect(form.getByLabelText('Why').getAttribute('aria-required')).toBe('true')
    await user.selectOptions(form.getByLabelText('It is'), 'waiting for part')
    await user.type(form.getByLabelText('Minutes spent now'), '20')
    await user.type(form.getByLabelText('Left to do'), 'the traces')
    await user.click(form.getByRole('button', { name: 'Save' }))
    expect(asked.find(({ path }) => path === '/api/jobs/4/work')?.body).toEqual({ version: 2, state: 'waiting for part',
      minutes: 20, left: 'the traces', why: '' })
  })

  it('shows what somebody else made of a job meanwhile, and lets one go on from there', async () => {
    signIn('curator')
    let refused = true
    const asked = serve(({ method, path }) => {
      if (method !== 'PUT') return { body: path.endsWith('/treatment') ? treatment : [] }
      if (!refused) return { body: job }
      refused = false
      return refusal(409, 'The job was changed by somebody else.', { newer: { job: { ...job, note: 'holder', version: 3 } } })
    })
    const user = show(<MakeGood machine={machine} />)
    await user.click(await screen.findByRole('button', { name: 'Edit Take the battery out' }))
    await user.type(screen.getByLabelText('Waits for these parts'), 'vinegar; swabs')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect((await screen.findAllByText(/holder/)).length).toBeGreaterThan(0)
    expect(screen.getByLabelText<HTMLInputElement>('Waits for these parts').value).toBe('vinegar; swabs')
    expect(asked.find(({ method }) => method === 'PUT')?.body).toMatchObject({ version: 2, needs: ['vinegar', 'swabs'],
      findingKeys: ['f1'], assemblyId: 9 })
  })

  it('shows a job before it and after, and keeps a photo with the rest of it as it was', async () => {
    signIn('curator')
    const asked = serve(({ method, path }) => method === 'PUT' ? { body: job }
      : { body: path.endsWith('/treatment') ? treatment : [] })
    const user = show(<MakeGood machine={machine} />)
    expect(await screen.findByRole('img', { name: 'Before Take the battery out' })).toBeTruthy()
    expect(screen.getAllByText(/BT1 2.1 V: fail/)).toHaveLength(2)
    await user.upload(screen.getAllByLabelText('Photo after it', { selector: 'input' })[0] as HTMLElement,
      new File(['x'], 'after.png', { type: 'image/png' }))
    await waitFor(() => {
      expect(asked.find(({ method, path }) => method === 'PUT' && path === '/api/jobs/4')?.body).toMatchObject({
        title: 'Take the battery out', place: 'BT1', proof: 'below 1 ohm', picturesBefore: [31], picturesAfter: [40],
        version: 2 })
    })
  })
})
