// @vitest-environment jsdom
import { screen } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import type { Known, Stated } from '../../../api/dossier'
import { signIn } from '../../../testing/people'
import { refusal, serve } from '../../../testing/server'
import { show } from '../../../testing/show'
import { KnownList } from './KnownList'

const said = (id: number, value: string, more: Partial<Stated> = {}): Stated => ({ id, machineId: 3,
  attribute: 'memory', value, kind: 'seller', cited: 'the offer', page: '', link: '', pictureId: null, partyId: null,
  statedOn: '', party: '', retracted: '', by: 'Bram Sedge', at: '2026-11-28T10:00:00Z', version: 1, follows: '',
  spot: null, ...more } as Stated)
const known = (statements: Stated[], judgement: object): Known => ({ attribute: { key: 'memory', label: 'Memory',
  form: 'bytes', unit: '', settledBy: 'firmware' }, statements, judgement } as unknown as Known)
const group = (standing: string, ...statements: Stated[]) => ({ value: statements[0]?.value, standing,
  statements: statements.map(({ id, kind, value }) => ({ id, kind, value })) })

describe('what is known of a machine', () => {
  beforeEach(() => { signIn('curator') })

  it('shows both values of equally strong sources, and what would settle it', () => {
    const [one, two] = [said(1, '64K'), said(2, '128K')]
    show(<KnownList machineId={3} onPicture={vi.fn()} known={[known([one, two], { state: 'disputed', value: '',
      next: 'count the chips', groups: [group('rival', one), group('rival', two)] })]} />)
    expect(screen.getByText('64K or 128K')).toBeTruthy()
    expect(screen.getByText('To settle it: count the chips.')).toBeTruthy()
  })

  it('marks what is contradicted, what was withdrawn, and what follows from the sheets', () => {
    const counted = said(0, '128 KB', { kind: 'counted', by: '', cited: '', follows: 'the sheets of its boards',
      spot: { assembly: 9, line: 4 } as Stated['spot'] })
    const [wrong, gone] = [said(1, '64K'), said(2, '32K', { retracted: 'another machine' })]
    show(<KnownList machineId={3} onPicture={vi.fn()} known={[known([counted, wrong, gone], { state: 'settled',
      value: '128 KB', next: '', groups: [group('best', counted), group('contradicted', wrong)] })]} />)
    expect(screen.getByText('contradicted')).toBeTruthy()
    expect(screen.getByText('withdrawn: another machine')).toBeTruthy()
    expect(screen.getByText(/from the sheets of its boards/)).toBeTruthy()
    expect(screen.getByRole('link', { name: 'line 4' }).getAttribute('href')).toBe('/bench/3/look-over')
    const buttons = screen.getAllByRole('button', { name: /^Withdraw/ })
    expect(buttons.map((b) => b.getAttribute('aria-label')), 'only what somebody said, once').toEqual(['Withdraw 64K'])
  })

  it('withdraws a statement with a reason, and offers to take that back', async () => {
    const asked = serve(() => ({ body: { event: 9 } }))
    const user = show(<KnownList machineId={3} onPicture={vi.fn()} known={[known([said(1, '64K')], { state: 'open',
      value: '', next: '', groups: [] })]} />)
    await user.click(screen.getByRole('button', { name: 'Withdraw 64K' }))
    await user.keyboard('the offer was for another{Enter}')
    await vi.waitFor(() => { expect(screen.queryByLabelText(/^Why it does not count/)).toBeNull() })
    expect(asked[0]).toMatchObject({ path: '/api/evidence/1/retract', body: { why: 'the offer was for another' } })
  })

  it('keeps the reason when the database is away', async () => {
    serve(() => refusal(503, 'The database is away; try again.'))
    const user = show(<KnownList machineId={3} onPicture={vi.fn()} known={[known([said(1, '64K')], { state: 'open',
      value: '', next: '', groups: [] })]} />)
    await user.click(screen.getByRole('button', { name: 'Withdraw 64K' }))
    await user.keyboard('a mistake{Enter}')
    expect(await screen.findByText(/The database is away/)).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>(/^Why it does not count/).value).toBe('a mistake')
  })

  it('shows the place on the picture that says so', async () => {
    const onPicture = vi.fn()
    const region = { x: 0.1, y: 0.2, w: 0.3, h: 0.4 }
    const user = show(<KnownList machineId={3} onPicture={onPicture} known={[known([said(1, '64K', { pictureId: 7,
      region })], { state: 'open', value: '', next: '', groups: [] })]} />)
    await user.click(screen.getByRole('button', { name: 'place on the picture' }))
    expect(onPicture).toHaveBeenCalledWith(7, region)
  })

  it('offers a viewer nothing to change', () => {
    signIn('viewer')
    show(<KnownList machineId={3} onPicture={vi.fn()} known={[known([said(1, '64K')], { state: 'open', value: '',
      next: '', groups: [] })]} />)
    expect(screen.queryByRole('button')).toBeNull()
  })
})
