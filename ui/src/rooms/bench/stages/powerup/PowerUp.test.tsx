// @vitest-environment jsdom
import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { Machine } from '../../../../api/machines'
import type { Power } from '../../../../api/power'
import { signIn } from '../../../../testing/people'
import { serve } from '../../../../testing/server'
import { show } from '../../../../testing/show'
import { PowerUp } from './PowerUp'

const machine = { id: 3, accession: 'EH-0142', name: 'Meridian 2' } as Machine
const rung = { machineId: 3, signs: ['screen 64 KB OK'], sign: 'a beep', stop: 'smoke', cannotTell: '', version: 1 }
const open = (id: string) => ({ id, blocks: 'supply-only', what: `${id}: it is open`, do: 'plug it as it sat',
  supply: '', path: 'open-up' })
const part = (id: number, more: object) => ({ assemblyId: 9, board: 'Main board', line: id, isFan: false, primary: false,
  unknown: false, place: `BT${String(id)}`, words: 'NiCd 3.6V', state: 'fitted', version: 0, ...more })

const power = { stage: { state: 'in hand', count: 0 }, state: 'hold', danger: true,
  missing: [{ id: 'BT1', blocks: 'hold', what: 'BT1 leaks since 2026-03-30', do: 'take it out', supply: '',
    path: 'power-up#cells-and-fans' }, open('P1'), open('P3')],
  next: { kind: 'remove', step: 'BT1', why: 'it is leaking' }, warnings: ['starts with mains'],
  supplies: [{ id: 7, machineId: 3, name: 'built in', kind: 'mains', plateVolts: '220-240', version: 1 }],
  rails: [{ supplyId: 7, rail: '+5', needed: true, volts: 4.6, on: '2026-10-09', load: 'dummy', low: 4.75, high: 5.25,
    rating: 10, draw: null }],
  parts: [part(1, { state: 'leaking' }), part(2, { primary: true, words: 'CR2032' }), part(3, { isFan: true, place: 'fan',
    words: 'fan 80 mm', state: 'unknown' })], rungs: [{ ...rung, id: 1, step: 'Main board alone', kind: 'minimum', result: 'as-expected', on: '2026-04-01' },
    { ...rung, id: 2, step: 'Disk card', kind: 'add', result: '', on: '' }], proposed: [], ups: [], worked: '', changed: [],
  noMains: true, cautions: [], before: ['Heat: nobody knows'], running: [{ key: 'live', word: 'Live work', text: 'One insulated tool.' }] } as unknown as Power

const page = (role: 'curator' | 'viewer') => {
  signIn(role)
  const asked = serve(({ method, path }) => method === 'POST'
    ? { status: 201, body: { event: 5, steps: ['Disk card'], result: 'not' } }
    : { body: path.endsWith('/power') ? power : path.endsWith('/console') ? { port: {}, captures: [], more: false }
      : { address: '' } })
  return { user: show(<PowerUp machine={machine} />), asked }
}

describe('first power', () => {
  it('says first what keeps it where it is, and together what is put right together', async () => {
    page('viewer')
    expect((await screen.findByText('2026-03-30')).closest('td')?.textContent).toContain('BT1 leaks since')
    const later = screen.getByText('2 points missing beyond that').closest('details')
    const [row, ...others] = within(later ?? document.body).getAllByRole('row').slice(1)
    expect(others).toEqual([])
    expect(row?.textContent).toContain('P1: it is openP3: it is open')
    expect(within(row ?? document.body).getByRole('link').getAttribute('href')).toBe('/bench/3/open-up')
    expect(screen.getByRole('img', { name: 'outside' })).toBeTruthy()
    expect(screen.getByText('The local mains is not known.')).toBeTruthy()
    expect(screen.queryByRole('button', { name: /Record|Add|Edit|Delete/ }), 'a viewer changes nothing').toBeNull()
  })

  it('asks who decided it when power was applied against the gate, and offers the rung that is next', async () => {
    const { user, asked } = page('curator')
    await user.click(await screen.findByRole('button', { name: 'Record that power was applied' }))
    expect(screen.getByRole('note', { name: 'While it runs' }).textContent).toContain('one hand, the lead in reach')
    expect(screen.getByText('One insulated tool.')).toBeTruthy()
    expect(screen.getByRole('list', { name: 'Before this step' }).textContent).toBe('Heat: nobody knows.')
    expect(screen.getAllByText('By its signs: screen 64 KB OK').length).toBeGreaterThan(0)
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: 'Disk card' }).checked).toBe(true)
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: 'Main board alone' }).checked).toBe(false)
    expect(screen.queryAllByRole('note', { name: 'While it runs' })).toHaveLength(1)
    await user.type(screen.getByLabelText('Who decided it'), 'a visitor')
    await user.type(screen.getByLabelText('Why'), 'to hear it')
    await user.selectOptions(screen.getByLabelText('Result'), 'not')
    await user.type(screen.getByLabelText('What was seen, heard, smelt'), 'dark')
    await user.click(within(screen.getByRole('region', { name: 'Ladder' })).getByRole('button', { name: 'Save' }))
    expect(asked.find(({ method }) => method === 'POST')?.body).toEqual({ rungIds: [2], result: 'not', on: '', seen: 'dark',
      decidedBy: 'a visitor', why: 'to hear it' })
  })

  it('has the meter read a rail straight into the record, under the load that was said', async () => {
    signIn('curator')
    const asked = serve(({ method, path }) => {
      if (path.endsWith('/measurements') && method === 'POST') return { status: 201, body: { id: 41, event: 6, point: '+5',
        judged: { inWords: '5.02 V', verdict: 'pass' } } }
      if (path.endsWith('/take')) return { body: { id: 41, trouble: 'the meter shows overload' } }
      if (path.endsWith('/console')) return { body: { port: {}, captures: [], more: false } }
      return { body: path.endsWith('/power') ? power : { address: '127.0.0.1:7072', name: 'bench meter' } }
    })
    const user = show(<PowerUp machine={machine} />)
    await user.click(await screen.findByRole('button', { name: 'Read +5 by the meter' }))
    expect(await screen.findByText('the meter shows overload')).toBeTruthy()
    expect(asked.find(({ path }) => path.endsWith('/measurements'))?.body).toEqual({ point: '+5', quantity: 'volts',
      supplyId: 7, load: 'dummy' })
    expect(asked.some(({ path }) => path === '/api/measurements/41/take')).toBe(true)
  })

  it('asks of a cell and of a fan what no sheet says, and sends what was said with its version', async () => {
    const { user, asked } = page('curator')
    const cells = within(await screen.findByRole('region', { name: 'Cells and fans' }))
    expect(cells.getByText('primary, not to be charged')).toBeTruthy()
    expect(cells.queryByRole('button', { name: /Save/ }), 'nothing is changed yet').toBeNull()
    await user.selectOptions(cells.getAllByLabelText('The machine charges it')[1] as HTMLElement, 'no')
    await user.click(cells.getByRole('button', { name: 'Save what is said of BT2' }))
    expect(asked.find(({ method }) => method === 'PUT')).toMatchObject({ path: '/api/assemblies/9/power-parts',
      body: { version: 0, place: 'BT2', charged: false } })
    await user.selectOptions(cells.getByLabelText('It'), 'turns')
    await user.click(cells.getByRole('button', { name: 'Save what is said of fan' }))
    expect(asked.filter(({ method }) => method === 'PUT').at(-1)?.body).toMatchObject({ place: 'fan', turns: 'turns' })
  })

  it('reads what a supply can give, names what it cannot read, and keeps what was typed', async () => {
    const { user, asked } = page('curator')
    await user.click(await screen.findByRole('button', { name: 'Say what feeds it' }))
    const supplies = within(screen.getByRole('region', { name: 'Supplies' }))
    await user.type(supplies.getByLabelText('Name'), 'adapter')
    await user.selectOptions(supplies.getByLabelText('Kind'), 'adapter')
    await user.type(supplies.getByLabelText('Measured volts of what feeds it'), '9,1 V')
    await user.selectOptions(supplies.getByLabelText('Measured polarity'), 'centre-')
    await user.type(supplies.getByLabelText('Rails that the machine needs'), '+5, -12')
    await user.type(supplies.getByLabelText('What each rail can give, in amperes'), '+5 10, lots')
    await user.click(supplies.getByRole('button', { name: 'Save' }))
    expect(supplies.getByText(/"lots" cannot be read/)).toBeTruthy()
    await user.clear(supplies.getByLabelText('What each rail can give, in amperes'))
    await user.type(supplies.getByLabelText('What each rail can give, in amperes'), '+5 1.5 A; -12 0.5')
    await user.click(supplies.getByRole('button', { name: 'Save' }))
    expect(asked.find(({ path }) => path === '/api/machines/3/supplies')?.body).toMatchObject({ name: 'adapter',
      kind: 'adapter', sourceVolts: 9.1, sourcePolarity: 'centre-', needs: ['+5', '-12'],
      rating: [{ rail: '+5', amperes: 1.5 }, { rail: '-12', amperes: 0.5 }] })
  })
})
