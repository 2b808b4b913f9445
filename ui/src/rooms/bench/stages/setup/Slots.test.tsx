// @vitest-environment jsdom
import 'fake-indexeddb/auto'

import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { Machine } from '../../../../api/machines'
import type { Setup, SlotPlan } from '../../../../api/setup'
import { signIn } from '../../../../testing/people'
import { serve } from '../../../../testing/server'
import { show } from '../../../../testing/show'
import { ConfigurationsPart } from './ConfigurationsPart'
import { CredentialsPart } from './CredentialsPart'
import { ModulesPart } from './ModulesPart'
import { OperatingPart } from './OperatingPart'
import { planned } from './planned'
import { SlotsPart } from './SlotsPart'
import { stepsOf } from './steps'

const machine = { id: 3, accession: 'EH-0142' } as Machine
const card = (assemblyId: number, name: string, slot: string, wrong = false) => ({ assemblyId, version: 2, name,
  slot, onBoard: false,
  fitted: true, needs: [{ resource: 'irq', now: '3', choices: ['3', '4'], shared: false }], draw: [{ rail: '+5', amperes: 0.5 }], wrong })
const plan = { backplane: { machineId: 3, layout: '', note: '', version: 0 }, offered: [], ok: false, solvable: true, refused: '',
  rows: [{ chassis: 'Cage', name: 'top', kind: 'quad', slots: [{ id: '1', chain: 1, cards: [7], filler: false },
    { id: '2', chain: 2, cards: [], filler: true }, { id: '3', chain: 3, cards: [8], filler: false }] }],
  cards: [card(7, 'Modem', '1', true), card(8, 'Disk card', '3', true), card(9, 'Clock card', '')],
  rails: [{ rail: '+5', draw: 6, rating: 5, headroom: -1 }, { rail: '-12', draw: 0, rating: null, headroom: null }], undrawn: ['Clock card'],
  problems: [{ kind: 'overlap', cards: ['Modem', 'Disk card'], detail: 'the Modem and the Disk card meet: irq 3' },
    { kind: 'chain', cards: ['Disk card'], detail: 'slot 2 is empty' }],
  proposal: { moves: [{ assemblyId: 9, card: 'Clock card', from: '', to: '2' }], notes: [], sets: [{ assemblyId: 8, card: 'Disk card',
    resource: 'irq', from: '3', to: '4', ways: [{ setting: 'JP2', at: '2-3' }] }] }, fillers: [],
  remarks: ['in which slot Clock card sits is not told'] } as unknown as SlotPlan

describe('slots', () => {
  const page = () => {
    signIn('curator')
    const asked = serve(({ path, body }) => path.endsWith('/moved') ? { body: {} } : { body: JSON.stringify(body).includes('"slot":"2"')
      ? { ...plan, problems: [], ok: true } : plan })
    return { user: show(<SlotsPart machine={machine} mayWrite />), asked }
  }

  it('tells what meets, which slots want a filler, and what draws too much', async () => {
    page()
    expect(await screen.findByText(/As it stands:.*meet: irq 3; the chain needs a filler in slot 2/)).toBeTruthy()
    expect(screen.getByText(/1.00 A too much/)).toBeTruthy()
    expect(screen.getByText(/What these draw nobody said, so it is more: Clock card/)).toBeTruthy()
    expect(screen.getByText('What no record says (1)')).toBeTruthy()
  })

  it('thinks a card elsewhere before anything is written down', async () => {
    const { user, asked } = page()
    await user.click(await screen.findByRole('button', { name: /Modem/ }))
    await user.click(screen.getByRole('button', { name: 'Think it there' }))
    expect(await screen.findByText(/speaks against it, as it is thought/)).toBeTruthy()
    expect(asked.every(({ path }) => !path.endsWith('/moved'))).toBe(true)
    await user.click(screen.getByRole('button', { name: 'The cards sit as thought' }))
    expect(asked.find(({ path }) => path.endsWith('/moved'))?.body).toEqual({ moves: [{ assemblyId: 7, version: 2, slot: '2' }], sets: [] })
  })

  it('writes what was proposed down once it is done', async () => {
    const { user, asked } = page()
    await user.click(await screen.findByRole('button', { name: 'It is done so' }))
    expect(asked.find(({ path }) => path.endsWith('/moved'))?.body).toEqual({ moves: [{ assemblyId: 9, version: 2, slot: '2' }],
      sets: plan.proposal.sets })
    expect(stepsOf(plan)).toEqual(['Clock card goes into slot 2', 'Set Disk card to irq 4, from 3: JP2 at 2-3'])
    expect(planned(plan, [{ assemblyId: 7, slot: '' }, { assemblyId: 99, slot: '1' }], [])).toEqual([])
  })
})

const setup = { configurations: [{ id: 4, machineId: 3, title: 'As found', kind: 'as found', on: '2026-03-01', version: 1,
  cards: [{ assemblyId: 8, title: 'Disk card', slot: '3', settings: 'SW1 on off ?' }], files: [],
  meanings: [[{ line: 1, name: 'SW1', at: 'on off ?', state: 'several', means: ['irq 3', 'irq 4'], why: 'not all were seen' }]] }],
  cards: [{ assemblyId: 8, title: 'Disk card', slot: '3', known: 'Disk card for two drives', settings: [{ kind: 'switch', name: 'SW1',
    positions: [] }] }], since: [{ of: 'card', card: 'Modem', from: '', to: 'slot 1', what: '', do: '', open: false, text: [] }],
  batteries: ['BT1 on Main board'], hasFirmware: false } as unknown as Setup

describe('configurations', () => {
  it('tells what settings mean, what changed since, and what leads there', async () => {
    signIn('curator')
    serve(({ path }) => ({ body: path.includes('/difference') ? { from: 'today', to: 'As found', changes: [{ of: 'setting', do: 'set JP2',
      open: true, card: '', what: '', from: '', to: '', text: [] }, { of: 'file', do: 'change START', text: [{ kind: 'added', text: 'bell off' },
      { kind: 'same', text: 'load' }] }] } : path.endsWith('/read') ? { meanings: [], problems: [{ line: 1, message: 'is no setting' }] } : setup }))
    const user = show(<ConfigurationsPart machine={machine} mayWrite />)
    expect(await screen.findByText(/irq 3, or irq 4/)).toBeTruthy()
    expect(screen.getByRole('img', { name: 'SW1: on off ?' })).toBeTruthy()
    expect(screen.getByText(/Modem, not there then, slot 1 now/)).toBeTruthy()
    expect(screen.getByText(/BT1 on Main board may keep settings/)).toBeTruthy()
    await user.selectOptions(screen.getByLabelText('What leads here from'), 'how it is today')
    expect(await screen.findByText(/set JP2/)).toBeTruthy()
    expect(screen.getByText(/\+ bell off/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Write a configuration down' }))
    const settings = screen.getByLabelText('Settings of Disk card, slot 3')
    expect((settings as HTMLTextAreaElement).value).toBe('SW1 on off ?')
    expect(await screen.findByText(/Line 1 is no setting/)).toBeTruthy()
  })
})

describe('credentials', () => {
  it('shows a secret to who asks, and hides it again', async () => {
    signIn('curator')
    const asked = serve(({ path }) => ({ body: path.endsWith('/see') ? { secret: 'neap-tide' } : { credentials: [
      { id: 5, machineId: 3, what: 'operator', kind: 'sign-on', user: 'op', mayLook: true, forTechnicians: true, version: 1 },
      { id: 6, machineId: 3, what: 'licence', kind: 'licence key', user: '', mayLook: false, version: 1 }] } }))
    const user = show(<CredentialsPart machine={machine} />)
    const one = within(await screen.findByRole('article', { name: 'operator' }))
    expect(screen.queryByText('neap-tide')).toBeNull()
    expect(screen.getByText('A curator can look at it.')).toBeTruthy()
    await user.click(one.getByRole('button', { name: 'Look at operator' }))
    expect(await screen.findByText('neap-tide')).toBeTruthy()
    await user.click(one.getByRole('button', { name: 'Hide it again' }))
    expect(screen.queryByText('neap-tide')).toBeNull()
    expect(asked.filter(({ path }) => path.endsWith('/see'))).toHaveLength(1)
  })
})

describe('memory modules', () => {
  const all = { hasRules: true, rules: { machineId: 3, rules: 'bank 0 | M1-M2', note: '', version: 2 }, offered: [], legal: false,
    amount: '2 MB', broken: [{ rule: 'speed', sockets: ['M2'], why: 'they are slower than 100 ns' }], banks: ['0'], isWhole: true, stock: 3,
    sockets: [{ socket: 'M1', module: '1Mx9', assemblyId: 8, line: 4 }, { socket: 'M2', module: '', assemblyId: 0, line: 0 }], why: '',
    plans: [{ amount: '8 MB', changes: 1, buy: ['1 x 1Mx9'], jumpers: ['JP6 at 2-3', 'JP7 at on'], sockets: [
      { socket: 'M1', module: '1Mx9', changed: false }, { socket: 'M2', module: '1Mx9', changed: true }] }],
    table: [{ amount: '2 MB', sizes: ['1Mx9'], jumpers: ['JP6 at 2-3'] }], remarks: ['no sheet has M2; it counts as empty'] }

  it('tells what may not stand, what could, and asks again for what is wanted', async () => {
    signIn('curator')
    const asked = serve(({ path }) => path.includes('lots') ? { status: 422, body: { title: 'x', status: 422, detail: 'lots is no amount' } }
      : { body: all })
    const user = show(<ModulesPart machine={machine} mayWrite />)
    expect(await screen.findByText(/slower than 100 ns \(M2\)/)).toBeTruthy()
    expect(screen.getByText(/to buy: 1 x 1Mx9/)).toBeTruthy()
    expect(screen.getByRole('img', { name: 'JP6 at 2-3' })).toBeTruthy()
    expect(screen.getByText('not on a sheet')).toBeTruthy()
    expect(screen.getByText('3 modules lie free in the stores.')).toBeTruthy()
    await user.type(screen.getByLabelText('How much is wanted'), 'lots')
    expect(await screen.findByText(/lots is no amount/)).toBeTruthy()
    expect(asked.some(({ path }) => path.includes('want=lots'))).toBe(true)
    await user.click(screen.getByRole('button', { name: 'Change the rules' }))
    await user.clear(screen.getByLabelText('Rules'))
    await user.type(screen.getByLabelText('Rules'), 'bank 1 | M1')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(asked.find(({ method }) => method === 'PUT')?.body).toEqual({ rules: 'bank 1 | M1', note: '', version: 2 })
  })
})

describe('the operating card', () => {
  const lamps = [{ line: 1, verb: 'deposit', said: '5', address: null, data: { value: '05', lit: [false, false, false, true, false, true],
    grouped: 3, bytes: false } }, { line: 2, verb: 'press', said: 'start', address: null, data: null }]
  const card = { machineId: 3, start: 'Key to the right\nWait', stop: 'Key to the left', radix: 'octal', addressBits: 6, dataBits: 6,
    advance: 1, panel: 'deposit 5', lamps, version: 4 }

  it('shows lamps, reads a procedure as it is written, and says what cannot be', async () => {
    signIn('curator')
    const asked = serve(({ path, body }) => path.endsWith('/read') ? JSON.stringify(body).includes('deposit 59') ? { status: 422,
      body: { title: 'x', status: 422, detail: '9 is no digit in octal' } } : { body: card } : { body: { card, offered: [] } })
    const user = show(<OperatingPart machine={machine} mayWrite />)
    expect((await screen.findByRole('img', { name: 'data lamps: 05' })).querySelectorAll('[data-on]')).toHaveLength(2)
    expect(screen.getByText('Wait')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Change the operating card' }))
    await user.type(screen.getByLabelText('At the panel'), '9')
    expect(await screen.findByText(/9 is no digit in octal/)).toBeTruthy()
    await user.type(screen.getByLabelText('At the panel'), '{Backspace}')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(asked.find(({ method }) => method === 'PUT')?.body).toMatchObject({ panel: 'deposit 5', version: 4, advance: 1,
      start: 'Key to the right\nWait' })
  })
})
