// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import type { Fact, Known, Stated } from '../../../api/dossier'
import { signIn } from '../../../testing/people'
import { refusal, serve } from '../../../testing/server'
import { show } from '../../../testing/show'
import { KnownList } from './KnownList'

const said = (id: number, value: string, more: Partial<Stated> = {}): Stated => ({ id, machineId: 3, subject: '',
  attribute: 'memory', value, nature: '', form: '', kind: 'seller', cited: 'the offer', page: '', link: '',
  pictureId: null, partyId: null, statedOn: '', party: '', retracted: '', by: 'Bram Sedge', at: '2026-11-28T10:00:00Z',
  version: 1, ref: String(id), follows: '', problem: '', spot: null, ...more } as Stated)
const known = (statements: Stated[], fact: Partial<Fact>): Known => ({ statements,
  attribute: { key: 'memory', label: 'Memory', form: 'quantity', unit: 'bytes', base: 1024, nature: 'state',
    identity: false, settledBy: 'count the chips' },
  fact: { attribute: 'memory', subject: '', state: 'settled', now: null, then: [], agree: [], differ: [],
    explanations: [], lastGood: null, failedBetween: null, next: '', ...fact } })
const open = { state: 'open' as const }

describe('what is known of a machine', () => {
  beforeEach(() => { signIn('curator') })

  it('shows both values of equally strong sources, and what would settle it', () => {
    show(<KnownList machineId={3} onPicture={vi.fn()} known={[known([said(1, '64K'), said(2, '128K'), said(3, '32K')], {
      state: 'disputed', next: 'count again', differ: [{ ids: ['1', '2'], why: '' }] })]} />)
    expect(screen.getByText('64K or 128K')).toBeTruthy()
    expect(screen.getByText('To settle it: count again.')).toBeTruthy()
  })

  it('shows what was before, until when, and between which days it failed', () => {
    const [before, now] = [said(1, 'yes', { statedOn: '2016' }), said(2, 'no: silent', { statedOn: '2026-11-20' })]
    show(<KnownList machineId={3} onPicture={vi.fn()} known={[known([before, now], {
      now: { value: 'no: silent', ids: ['2'] }, then: [{ value: 'yes', ids: ['1'], until: '2026-11-20' }],
      lastGood: '../2016', failedBetween: ['../2016', '2026-11-20'] })]} />)
    const line = screen.getByRole('list', { name: 'Memory over time' })
    expect(within(line).getAllByRole('listitem').map((li) => li.textContent))
      .toEqual(['yes until 2026-11-20', 'no: silent now'])
    expect(screen.getByText(/Last known to work by 2016; it failed between then and 2026-11-20/)).toBeTruthy()
    expect(screen.getByText('before')).toBeTruthy()
  })

  it('marks what says otherwise, was withdrawn, cannot be weighed, is explained, and follows from the sheets', () => {
    const counted = said(0, '128 KB', { ref: 'follows-0', kind: 'counted', by: '', cited: '',
      follows: 'the sheets of its boards', spot: { assembly: 9, line: 4 } as Stated['spot'] })
    const statements = [counted, said(1, '64K'), said(2, '32K', { retracted: 'another machine' }),
      said(3, 'lots', { problem: 'write an amount' }), said(4, '112K')]
    show(<KnownList machineId={3} onPicture={vi.fn()} known={[known(statements, {
      now: { value: '128 KB', ids: ['follows-0'] }, next: 'ask', agree: [['follows-0', '4']],
      differ: [{ ids: ['follows-0', '1'], why: '' }],
      explanations: [{ id: '4', blocks: ['picture memory'], limit: null, text: '112 KB = 128 KB less 16 KB' }] })]} />)
    expect(screen.getByText('says otherwise')).toBeTruthy()
    expect(screen.getByText('explained')).toBeTruthy()
    expect(screen.getByText('112 KB = 128 KB less 16 KB.')).toBeTruthy()
    expect(screen.getByText('withdrawn: another machine')).toBeTruthy()
    expect(screen.getByText('not weighed: write an amount')).toBeTruthy()
    expect(screen.getByText('To be sure: ask.')).toBeTruthy()
    expect(screen.getByText(/from the sheets of its boards/)).toBeTruthy()
    expect(screen.getByRole('link', { name: 'line 4' }).getAttribute('href')).toBe('/bench/3/look-over?at=9.4')
    const buttons = screen.getAllByRole('button', { name: /^Withdraw/ })
    expect(buttons.map((b) => b.getAttribute('aria-label')), 'only what somebody said, once')
      .toEqual(['Withdraw 64K', 'Withdraw lots', 'Withdraw 112K'])
  })

  it('withdraws a statement with a reason, and offers to take that back', async () => {
    const asked = serve(() => ({ body: { event: 9 } }))
    const user = show(<KnownList machineId={3} onPicture={vi.fn()} known={[known([said(1, '64K')], open)]} />)
    await user.click(screen.getByRole('button', { name: 'Withdraw 64K' }))
    await user.keyboard('the offer was for another{Enter}')
    await waitFor(() => { expect(screen.queryByLabelText(/^Why it does not count/)).toBeNull() })
    expect(asked[0]).toMatchObject({ path: '/api/evidence/1/retract', body: { why: 'the offer was for another' } })
  })

  it('keeps the reason when the database is away', async () => {
    serve(() => refusal(503, 'The database is away; try again.'))
    const user = show(<KnownList machineId={3} onPicture={vi.fn()} known={[known([said(1, '64K')], open)]} />)
    await user.click(screen.getByRole('button', { name: 'Withdraw 64K' }))
    await user.keyboard('a mistake{Enter}')
    expect(await screen.findByText(/The database is away/)).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>(/^Why it does not count/).value).toBe('a mistake')
  })

  it('shows the place on the picture that says so', async () => {
    const onPicture = vi.fn()
    const region = { x: 0.1, y: 0.2, w: 0.3, h: 0.4 }
    const user = show(<KnownList machineId={3} onPicture={onPicture} known={[known([said(1, '64K', { pictureId: 7,
      region })], open)]} />)
    await user.click(screen.getByRole('button', { name: 'place on the picture' }))
    expect(onPicture).toHaveBeenCalledWith(7, region, undefined)
  })

  it('offers a viewer nothing to change', () => {
    signIn('viewer')
    show(<KnownList machineId={3} onPicture={vi.fn()} known={[known([said(1, '64K')], open)]} />)
    expect(screen.queryByRole('button')).toBeNull()
  })
})
