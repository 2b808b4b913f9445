// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { Lot, LotThing } from '../../api/lots'
import { signIn } from '../../testing/people'
import { refusal, serve } from '../../testing/server'
import { show } from '../../testing/show'
import { Things } from './Things'

const thing = (id: number, title: string, more: Partial<LotThing> = {}): LotThing => ({ id, acquisitionId: 1,
  kind: 'board', title, estimateCents: 20_00, handCents: null, valueCents: null, valueNote: '', passedTo: null,
  passedOn: '', passedForCents: null, note: '', machineId: null, accession: '', assemblyId: null, party: '',
  voided: false, version: 1, shareCents: 30_00, share: '30.00', disposition: 'not placed yet', ...more })
const lot = (things: LotThing[], more: Partial<Lot> = {}) => ({ id: 1, title: 'Clear-out', currency: 'EUR',
  spread: 'estimate', spreadProblem: '', things, costCents: 60_00, cost: '60.00', estimatesCents: 40_00,
  worth: { value: 45_00 }, version: 7, ...more }) as unknown as Lot

describe('the things of a lot', () => {
  it('are listed with their shares, and what became of them', () => {
    signIn('viewer')
    show(<Things lot={lot([thing(1, 'Machine', { machineId: 3, accession: 'EH-0142' }),
      thing(2, 'Card', { assemblyId: 9 }), thing(3, 'Lead', { disposition: 'passed on to the club, 2026-01' })])} />)
    expect(screen.getByRole('link', { name: 'EH-0142' }).getAttribute('href')).toBe('/bench/3/arrive')
    expect(screen.getByRole('link', { name: 'in store' }).getAttribute('href')).toBe('/stores/9')
    expect(screen.getByText('passed on to the club, 2026-01')).toBeTruthy()
    const sum = screen.getByRole('row', { name: /Together/ })
    expect(within(sum).getAllByRole('cell').map((c) => c.textContent)).toEqual(['', '40.00', '60.00', '45.00', ''])
    expect(screen.queryByRole('button')).toBeNull()
  })

  it('say why the cost cannot be spread', () => {
    signIn('viewer')
    show(<Things lot={lot([thing(1, 'Card', { share: '' })], { spreadProblem: 'the shares add up to 20.00' })} />)
    expect(screen.getByText(/The shares add up to 20.00\./)).toBeTruthy()
  })

  it('grow by one, from the version of the lot that was read', async () => {
    signIn('curator')
    const asked = serve(({ method }) => method === 'POST' ? { body: lot([thing(1, 'Lead')], { version: 8 }) } : { body: [] })
    const user = show(<Things lot={lot([])} />)
    await user.click(screen.getByRole('button', { name: 'Add a thing' }))
    await user.type(screen.getByLabelText(/^What it is/), 'Lead')
    await user.type(screen.getByLabelText(/^Estimate when it came/), '7.50{Enter}')
    await waitFor(() => { expect(asked.find(({ method }) => method === 'POST')).toBeTruthy() })
    expect(asked.find(({ method }) => method === 'POST')).toMatchObject({ path: '/api/lots/1/things',
      body: { title: 'Lead', estimateCents: 750, handCents: null, version: 7 } })
  })

  it('refuse an amount that is none before the server is asked, and keep it', async () => {
    signIn('curator')
    const asked = serve(() => ({ body: [] }))
    const user = show(<Things lot={lot([])} />)
    await user.click(screen.getByRole('button', { name: 'Add a thing' }))
    await user.type(screen.getByLabelText(/^What it is/), 'Lead')
    await user.type(screen.getByLabelText(/^Worth today/), 'a lot{Enter}')
    expect(screen.getByLabelText<HTMLInputElement>(/^Worth today/).value).toBe('a lot')
    expect(screen.getByLabelText(/^Worth today/).getAttribute('aria-invalid')).toBe('true')
    expect(asked.filter(({ method }) => method === 'POST')).toEqual([])
  })

  it('are unlinked from a machine, and say when somebody changed the lot meanwhile', async () => {
    signIn('curator')
    const asked = serve(() => refusal(409, 'Somebody changed the lot meanwhile.'))
    const user = show(<Things lot={lot([thing(1, 'Machine', { machineId: 3, accession: 'EH-0142' })])} />)
    expect(screen.queryByRole('button', { name: 'Place Machine' }), 'it is placed').toBeNull()
    await user.click(screen.getByRole('button', { name: 'Unlink Machine from EH-0142' }))
    expect(await screen.findByText(/Somebody changed the lot meanwhile/)).toBeTruthy()
    expect(asked[0]).toMatchObject({ method: 'PUT', path: '/api/lots/1/things/1/machine', body: { version: 7, machineId: 0 } })
  })

  it('are taken out when they were entered by mistake', async () => {
    signIn('curator')
    const asked = serve(({ method }) => method === 'POST' ? { body: { lot: lot([]), event: 4 } } : { body: [] })
    const user = show(<Things lot={lot([thing(1, 'Lead')])} />)
    await user.click(screen.getByRole('button', { name: 'Change Lead' }))
    await user.click(screen.getByRole('button', { name: /Entered by mistake/ }))
    await waitFor(() => { expect(screen.queryByRole('button', { name: /Entered by mistake/ })).toBeNull() })
    expect(asked.find(({ method }) => method === 'POST')).toMatchObject({ path: '/api/lots/1/things/1/void',
      body: { version: 7 } })
  })
})
