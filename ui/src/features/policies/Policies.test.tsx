// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { Machine } from '../../api/machines'
import type { Policy, Treatment } from '../../api/work'
import { Wanting } from '../../rooms/bench/stages/makegood/Wanting'
import { signIn } from '../../testing/people'
import { refusal, serve } from '../../testing/server'
import { show } from '../../testing/show'
import { Policies } from './Policies'

const choice = (option: string, version: number, why = '') => ({ question: 'capacitors', option, why, by: 'Ottilie', on: '2026-11-30',
  version })
const options = [{ key: 'needed', title: 'Replace what is bad', means: 'The rest stays.', reversible: 'partly', template: 'capacitor' },
  { key: 'all', title: 'In one go', means: 'All of them go.', reversible: 'no', template: 'capacitor' }]
const policy = { key: 'capacitors', title: 'Capacitors', hasPieces: true, chosen: 'needed', options,
  collection: choice('needed', 3), own: choice('', 0) } as unknown as Policy
const costs = [{ option: 'needed', pieces: 1, boards: 1, minutes: 37, places: ['C2'], needs: [{ what: '47u 16V', count: 1 }], cents: 0,
  unpriced: 1 }, { option: 'all', pieces: 5, boards: 1, minutes: 65, places: [], needs: [{ what: '47u 16V', count: 5 }], cents: 175,
  unpriced: 0 }]

function page(machineId: number, told: Policy = policy, answer: () => ReturnType<typeof refusal> | { body: unknown } = () => ({ body: [policy] })) {
  signIn('curator')
  const asked = serve(({ method, path }) => {
    if (method !== 'GET') return answer()
    if (path.endsWith('/costs')) return { body: costs }
    if (path.endsWith('/policies')) return { body: [told] }
    return { body: { currency: 'EUR' } }
  })
  return { user: show(<Policies machineId={machineId} mayDecide />), sent: () => asked.filter(({ method }) => method !== 'GET') }
}

describe('policies', () => {
  it('lay what each way takes beside each other, and have a machine go its own way with a reason', async () => {
    const { user, sent } = page(4)
    expect(await screen.findByText('Replace what is bad')).toBeTruthy()
    expect(screen.getByText(/as the collection does/)).toBeTruthy()
    await user.click(screen.getByText('What each way takes'))
    const decided = within(await screen.findByRole('row', { name: /\(decided\)/ }))
    expect(decided.getByText('1 of unknown price')).toBeTruthy()
    const other = within(screen.getByRole('row', { name: /In one go/ }))
    expect(other.getByText('1 h 5 min')).toBeTruthy()
    expect(other.getByText('1.75 EUR')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Decide: Capacitors' }))
    await user.selectOptions(screen.getByLabelText('Decision'), 'all')
    expect(screen.getByText(/All of them go. It cannot be undone./)).toBeTruthy()
    await user.type(screen.getByLabelText('Why'), 'It runs all day')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => { expect(sent()[0]).toMatchObject({ path: '/api/machines/4/policies/capacitors',
      body: { version: 0, option: 'all', why: 'It runs all day' } }) })
  })

  it('of the collection need no reason, and tell what was refused', async () => {
    const { user, sent } = page(0, { ...policy, own: null, chosen: '', collection: choice('', 0) }, () => refusal(409,
      'Somebody decided meanwhile.'))
    expect(await screen.findByText('nobody decided')).toBeTruthy()
    expect(screen.queryByText('What each way takes')).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Decide: Capacitors' }))
    await user.selectOptions(screen.getByLabelText('Decision'), 'needed')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(await screen.findByText('Somebody decided meanwhile.')).toBeTruthy()
    expect(sent()[0]).toMatchObject({ path: '/api/policies/capacitors', body: { version: 0, option: 'needed' } })
  })

  it('propose the job that follows from a finding, or leave it', async () => {
    signIn('curator')
    const asked = serve(() => ({ status: 201, body: {} }))
    const advised = { question: 'capacitors', option: 'all', leave: false, template: 'capacitor', place: 'C1,C2', needs: ['2 x 47u 16V'],
      why: 'In one go: 2 on this board', title: 'Replace capacitors', findingKeys: ['f1', 'f2'] }
    const want = { key: 'f1', where: 'C2', kind: 'bulging', severity: 'repair', assemblyId: 9, place: 'C2', usual: ['capacitor', 'wire'],
      policy: advised }
    const treatment = { wanting: [want, { ...want, key: 'f3', where: 'lid', kind: 'scratched', usual: [], policy: { ...advised,
      leave: true, why: 'Conserve as found', title: '' } }], usual: [{ key: 'capacitor', title: 'Replace capacitors' },
      { key: 'wire', title: 'Mend a trace' }] } as unknown as Treatment
    const user = show(<Wanting machine={{ id: 4 } as Machine} treatment={treatment} mayWrite />)
    expect(screen.getByText('Left: Conserve as found')).toBeTruthy()
    expect(screen.queryByRole('button', { name: 'Replace capacitors: C2' })).toBeNull()
    expect(screen.getByRole('button', { name: 'Mend a trace: C2' })).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Replace capacitors, by policy: C2' }))
    await waitFor(() => { expect(asked[0]?.body).toMatchObject({ template: 'capacitor', findingKeys: ['f1', 'f2'], place: 'C1,C2',
      needs: ['2 x 47u 16V'], note: 'By policy: In one go: 2 on this board' }) })
  })
})
