// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'

import type { FindingView, Measurement } from '../../../../api/judge'
import type { Machine } from '../../../../api/machines'
import { signIn } from '../../../../testing/people'
import { type Asked, refusal, serve } from '../../../../testing/server'
import { show } from '../../../../testing/show'
import { Measurements } from './Measurements'

const machine = { id: 3, accession: 'EH-0142' } as unknown as Machine
const measured = (more: Partial<Measurement> = {}) => ({ id: 8, version: 2, point: 'BT1', assembly: 'Main board',
  quantity: 'volts', unit: 'V', readings: [2.1], on: '2026-03-04', by: 'Bram', instrument: 'meter 2', note: 'warm',
  trouble: '', judged: { verdict: 'fail', inWords: '2.1 V', why: ['below the limit', 'a rule of thumb'],
    stats: { count: 1, average: 2.1, lowest: 2.1, highest: 2.1, spread: 0 } }, ...more }) as unknown as Measurement
const finding = (id: number, open: boolean) => ({ id, kind: 'weak', where: `BT${String(id)}`,
  story: { open } }) as unknown as FindingView

/** The server: two boards, what was measured, and an answer to what is kept. */
const answering = (list: Measurement[], keep: (asked: Asked) => ReturnType<typeof refusal> | { body: object }) =>
  serve((asked) => {
    if (asked.method !== 'GET') return keep(asked)
    if (asked.path.endsWith('/assemblies')) return { body: [{ id: 9, title: 'Main board' }, { id: 10, title: 'Card' }] }
    return { body: asked.path.endsWith('/measurements') ? list
      : { name: '', address: '', trouble: '', points: [], faults: [] } }
  })
const kept = (asked: Asked[]) => asked.filter(({ method }) => method === 'POST')

describe('what was measured', () => {
  beforeEach(() => { localStorage.clear() })

  it('stands with its verdict, its reasons, and by whom', async () => {
    signIn('viewer')
    answering([measured()], () => ({ body: {} }))
    show(<Measurements machine={machine} findings={[]} mayWrite={false} />)
    const row = (await screen.findByText('BT1')).closest('tr') as HTMLElement
    expect(within(row).getAllByRole('cell').map((cell) => cell.textContent)).toEqual(['BT1Main board', '2.1 V fail',
      'below the limit; a rule of thumbwarm', '2026-03-04meter 2, Bram', ''])
    expect(screen.queryByLabelText('What you measured')).toBeNull()
  })

  it('is typed as one says it, for a board and a finding that is open', async () => {
    signIn('curator')
    const asked = answering([], () => ({ body: { ...measured(), event: 5 } }))
    const user = show(<Measurements machine={machine} findings={[finding(1, true), finding(2, false)]} mayWrite />)
    await user.type(screen.getByLabelText(/^What you measured/), 'BT1 2.1 V')
    await user.type(screen.getByLabelText('With'), 'meter 2')
    await user.selectOptions(await screen.findByLabelText('On'), 'Card')
    const forFinding = screen.getByLabelText('For the finding')
    expect(within(forFinding).getAllByRole('option').map((o) => o.textContent)).toEqual(['none', 'weak, BT1'])
    await user.selectOptions(forFinding, 'weak, BT1')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => { expect(kept(asked)).toHaveLength(1) })
    expect(kept(asked)[0]).toMatchObject({ path: '/api/machines/3/measurements',
      body: { line: 'BT1 2.1 V', instrument: 'meter 2', note: '', findingId: 1, assemblyId: 10 } })
    await waitFor(() => {
      expect(screen.getByLabelText<HTMLInputElement>(/^What you measured/).value).toBe('')
    })
  })

  it('keeps what is no measurement, with the remedy, and after the page was left', async () => {
    signIn('curator')
    answering([], () => refusal(422, 'Write what was measured, the value and its unit.'))
    const user = show(<Measurements machine={machine} findings={[]} mayWrite />)
    await user.type(screen.getByLabelText(/^What you measured/), 'BT1 lots{Enter}')
    expect(await screen.findByText(/the value and its unit/)).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>(/^What you measured/).value).toBe('BT1 lots')
    document.body.replaceChildren()
    show(<Measurements machine={machine} findings={[]} mayWrite />)
    expect(screen.getByLabelText<HTMLInputElement>(/^What you measured/).value).toBe('BT1 lots')
  })

  it('goes on with more readings of a point, and is deleted in the version that was read', async () => {
    signIn('curator')
    const asked = answering([measured()], () => refusal(409, 'Somebody changed it meanwhile.'))
    const user = show(<Measurements machine={machine} findings={[]} mayWrite />)
    await user.click(await screen.findByRole('button', { name: 'More readings of BT1' }))
    expect(screen.getByLabelText('A reading by hand, V')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Delete BT1 2.1 V' }))
    expect(await screen.findByText(/Somebody changed it meanwhile/)).toBeTruthy()
    expect(kept(asked)[0]?.path).toBe('/api/measurements/8/void?version=2')
  })
})
