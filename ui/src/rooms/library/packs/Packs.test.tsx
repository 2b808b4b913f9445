// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { PackRow } from '../../../api/packs'
import { signIn } from '../../../testing/people'
import { refusal, serve } from '../../../testing/server'
import { show } from '../../../testing/show'
import Packs from './Packs'

const row = (n: number, state: PackRow['state'], more: Partial<PackRow> = {}): PackRow => ({ n, state, sort: 'model',
  name: `Model ${String(n)}`, why: '', hereId: 0, differences: [], canBeTaken: state !== 'same' && state !== 'wrong',
  taken: false, ...more })
const rows = [row(1, 'new'), row(2, 'same'), row(3, 'wrong', { why: 'model: say what the maker called it' }),
  row(4, 'beside', { hereId: 9, sort: 'known assembly', why: 'both are told',
    differences: [{ field: 'details', here: 'memory 64 KB', pack: 'memory 128 KB' },
      { field: 'note', here: '', pack: 'two fans' }] })]

describe('a pack of another collection', () => {
  it('is looked at first; what contradicts is told beside ours, and taken only when it is chosen', async () => {
    signIn('curator')
    const asked = serve(({ body }) => {
      const { take } = body as { take: { n: number }[] }
      return { body: { of: 'Gull Point', taken: take.length,
        rows: rows.map((one) => ({ ...one, taken: take.some(({ n }) => n === one.n) })) } }
    })
    const user = show(<Packs />)
    await user.click(screen.getByLabelText(/^Pack of another collection/))
    await user.paste('{"format": "heron-library"}')
    await user.click(screen.getByRole('button', { name: 'See what it would do' }))
    expect((await screen.findByRole('status')).textContent)
      .toBe('Of Gull Point: 1 new here, 1 the same, 1 against ours, 1 unreadable.')
    const lines = screen.getAllByRole('row').slice(1)
    expect(lines.map((line) => within(line).getAllByRole('cell')[1]?.textContent)).toEqual(['modelModel 1', 'modelModel 3',
      'known assemblyModel 4'])
    expect(lines[2]?.textContent).toContain('here memory 64 KB')
    expect(lines[2]?.textContent).toContain('adds two fans')
    expect(screen.getByRole('link', { name: 'Model 4' }).getAttribute('href')).toBe('/library/known/9')
    expect(screen.queryByRole('checkbox', { name: 'Model 3' })).toBeNull()
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: 'Model 4' }).checked).toBe(false)
    await user.click(screen.getByRole('checkbox', { name: 'Model 4' }))
    await user.click(screen.getByRole('button', { name: 'Take 2 of them' }))
    await waitFor(() => { expect(asked).toHaveLength(2) })
    expect(asked[1]?.body).toMatchObject({ take: [{ n: 1, state: 'new' }, { n: 4, state: 'beside' }] })
    expect((await screen.findByText(/2 taken/)).textContent).toContain('2 taken.')
    expect(screen.queryByRole('button', { name: /^Take/ })).toBeNull()
  })

  it('keeps what is none, with the remedy; who may not take one is given ours only', async () => {
    signIn('curator')
    serve(() => refusal(422, 'line 3: the file is damaged'))
    const user = show(<Packs />)
    await user.click(screen.getByLabelText(/^Pack of another collection/))
    await user.paste('damaged')
    await user.click(screen.getByRole('button', { name: 'See what it would do' }))
    expect(await screen.findByText(/line 3: the file is damaged/)).toBeTruthy()
    expect(screen.getByLabelText<HTMLTextAreaElement>(/^Pack of another collection/).value).toBe('damaged')
    document.body.replaceChildren()
    signIn('viewer')
    show(<Packs />)
    expect(screen.getByRole('link', { name: 'library.json' })).toBeTruthy()
    expect(screen.queryByLabelText(/^Pack of another collection/)).toBeNull()
  })
})
