// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'

import type { FittedAssembly } from '../../../../../api/assemblies'
import { type Asked, refusal, serve } from '../../../../../testing/server'
import { show } from '../../../../../testing/show'
import { MoveForm } from './MoveForm'

const board = { id: 9, machineId: 3, kind: 'card', title: 'Memory card', part: '', rev: '', serial: '', slot: '3',
  fit: 'factory', purpose: '', isVoided: false, version: 4, revision: 1, updatedAt: '', body: '' } as FittedAssembly
const here = { id: 2, assemblyId: 9, machineId: 3, accession: 'EH-0142', place: '', lentTo: '', due: null, slot: '3',
  fit: 'factory', note: '', since: '2025-01-01', until: null }

let fittings: object[] = [here]
const answers = (move: (asked: Asked) => ReturnType<Parameters<typeof serve>[0]>) => (asked: Asked) => {
  if (asked.path.endsWith('/fittings')) return { body: fittings }
  if (asked.path.endsWith('/moves')) return move(asked)
  return { body: asked.path.startsWith('/api/places') ? ['Store, shelf B'] : [] }
}
const moved = { body: { assembly: board, event: 5, where: 'Store, shelf B' } }
const sent = (asked: Asked[]) => asked.filter(({ path }) => path.endsWith('/moves')).map(({ body }) => body)

describe('moving a board', () => {
  it('takes it to a place by the keyboard, from the version that was read', async () => {
    fittings = [here]
    const asked = serve(answers(() => moved))
    const onDone = vi.fn()
    const user = show(<MoveForm assembly={board} onDone={onDone} />)
    await user.type(await screen.findByLabelText('Place'), 'Store, shelf B')
    const day = screen.getByLabelText('Day of the move')
    await user.clear(day)
    await user.type(day, '2026-11-20{Enter}')
    await waitFor(() => { expect(onDone).toHaveBeenCalled() })
    expect(sent(asked)).toEqual([{ version: 4, to: 'place', place: 'Store, shelf B', on: '2026-11-20', note: '' }])
  })

  it('lends it, and keeps what was typed when the server refuses', async () => {
    const asked = serve(answers(() => refusal(422, 'Not acceptable as it is',
      { errors: [{ location: 'body.due', message: 'Lies before the day of the loan.' }] })))
    const onDone = vi.fn()
    const user = show(<MoveForm assembly={board} start="loan" onDone={onDone} />)
    await user.type(await screen.findByLabelText('Lent to'), 'Lighthouse Trust')
    await user.type(screen.getByLabelText('To be back by'), '2020-01-01')
    await user.click(screen.getByRole('button', { name: 'Lend it' }))
    expect(await screen.findByText(/Lies before the day of the loan/)).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>(/^Lent to/).value).toBe('Lighthouse Trust')
    expect(sent(asked)).toMatchObject([{ to: 'loan', lentTo: 'Lighthouse Trust', due: '2020-01-01' }])
    expect(onDone).not.toHaveBeenCalled()
  })

  it('shows that somebody else changed it, and goes on from there when told to', async () => {
    let version = 4
    const asked = serve(answers(({ body }) => {
      version = (body as { version: number }).version
      return version === 4 ? refusal(409, 'Somebody changed it', { newer: { assembly: { ...board, version: 6 } } }) : moved
    }))
    const onDone = vi.fn()
    const user = show(<MoveForm assembly={board} onDone={onDone} />)
    await user.type(await screen.findByLabelText('Place'), 'Loft')
    await user.click(screen.getByRole('button', { name: 'Take it there' }))
    expect(await screen.findByText(/It is version 6 of Memory card now/)).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>('Place').value).toBe('Loft')
    await user.click(screen.getByRole('button', { name: /on top of|go on|anyway/i }))
    await user.click(screen.getByRole('button', { name: 'Take it there' }))
    await waitFor(() => { expect(onDone).toHaveBeenCalled() })
    expect(sent(asked).map((body) => (body as { version: number }).version)).toEqual([4, 6])
  })

  it('offers the way back into the machine it came from', async () => {
    fittings = [{ ...here, id: 3, machineId: null, accession: '', place: 'Store' }, here]
    const asked = serve(answers(() => moved))
    const onDone = vi.fn()
    const user = show(<MoveForm assembly={board} onDone={onDone} />)
    await user.click(await screen.findByRole('button', { name: 'Bring it back: EH-0142, slot 3' }))
    await waitFor(() => { expect(onDone).toHaveBeenCalled() })
    expect(sent(asked)).toEqual([{ version: 4, to: 'machine', machineId: 3, slot: '3', fit: 'factory' }])
  })
})
