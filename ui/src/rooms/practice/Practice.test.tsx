// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import { queryClient } from '../../api/client'
import type { Practice as Told } from '../../api/practice'
import { signIn } from '../../testing/people'
import { serve } from '../../testing/server'
import { show } from '../../testing/show'
import Practice from './Practice'

const exercise = { seed: 2, inspected: false, on: true, load: 'dummy', fitted: ['Processor board'], since: 0, said: null,
  is: null, console: '', lamps: null, readings: [{ point: '+5', volts: 4.6, load: 'machine', out: true }, { point: '+12', volts: 0, load: 'none', out: false }],
  ladder: [{ step: 'Processor board alone', kind: 'minimum', sign: 'a lamp', stop: 'smoke', result: 'not' }],
  log: [{ kind: 'switch on', what: '', seen: '', slip: 'the gate stood at hold' }, { kind: 'listen', what: '',
    seen: 'nothing', slip: '' }] }
const words = { key: 'bad-chip', name: 'A bad memory chip', shows: 'the same bit', places: ['U10', 'U11'] }
const told = { address: 'a', exercise, version: 1, gate: { state: 'hold', missing: [{ id: 'S', blocks: 'hold',
  what: 'Supply: not inspected', do: 'have it inspected', supply: 'S' }], next: {}, warnings: [] },
  rails: [{ name: '+5', low: 4.75, high: 5.25 }, { name: '+12', low: 11.4, high: 12.6 }], console: { outcome: 'silent', why: 'nothing came', next: 'The lead', bells: 0, lines: [], claims: [], failures: [],
    troubles: [], clock: null, prompt: '', doubts: [] },
  units: ['Processor board', 'Disk card'], points: ['+5', '+12'], faults: [words], debrief: null, cautions: [],
} as unknown as Told

const page = (now: object) => {
  signIn('viewer')
  queryClient.clear()
  const asked = serve(() => ({ body: { ...told, ...now } }))
  return { asked, user: show(<Practice />) }
}
const posted = (asked: { method: string; path: string; body: unknown }[]) =>
  asked.filter(({ method }) => method === 'POST').map(({ path, body }) => [path, body])

describe('practice', () => {
  it('says that it is practice, what would have been wrong, and which reading is outside', async () => {
    const { asked, user } = page({})
    expect((await screen.findByRole('note')).textContent).toContain('Nothing of it is a record')
    const rows = within(await screen.findByRole('table', { name: 'Readings' })).getAllByRole('row').slice(1)
    expect(rows.map((row) => row.textContent)).toEqual(['+54.60machine4.75 to 5.25 outside', '+120.00off11.40 to 12.60'])
    expect(screen.getByText('Silence').closest('p')?.textContent).toContain('nothing came')
    expect(screen.getByText('nobody looked since it was switched')).toBeTruthy()
    expect(screen.getByText(/On a real machine: the gate stood at hold/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Fit Disk card' }))
    await waitFor(() => { expect(posted(asked)).toEqual([['/api/practice/deeds', { kind: 'fit', what: 'Disk card' }]]) })
    await user.selectOptions(screen.getByRole('combobox', { name: 'Where' }), 'U11')
    await user.click(screen.getByRole('button', { name: 'Say that it is this' }))
    await waitFor(() => { expect(posted(asked).at(-1)).toEqual(['/api/practice/diagnosis',
      { fault: 'bad-chip', place: 'U11' }]) })
  })

  it('tells at the end what it was, and begins with the machine of a number', async () => {
    const { asked, user } = page({ exercise: { ...exercise, said: { fault: 'sags', place: 'Supply' } }, debrief: {
      right: false, is: { fault: 'bad-chip', place: 'U11' }, words, why: 'it shows by this', deeds: 2,
      slips: [exercise.log[0]] } })
    expect((await screen.findByRole('region', { name: 'Not that' })).textContent).toContain('A bad memory chip, U11')
    expect(screen.queryByRole('button', { name: 'Say that it is this' })).toBeNull()
    await user.type(screen.getByRole('textbox', { name: /Number of the machine/ }), '7')
    await user.click(screen.getByRole('button', { name: 'Begin with another machine' }))
    await waitFor(() => { expect(posted(asked)).toEqual([['/api/practice', { seed: 7 }]]) })
  })

  it('says how a practice machine is set up where there is none', async () => {
    page({ address: '', exercise: null, gate: null })
    expect(await screen.findByText(/No practice machine is set up/)).toBeTruthy()
  })
})
