// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'

import { queryClient } from '../../api/client'
import { signIn } from '../../testing/people'
import { type Asked, refusal, serve } from '../../testing/server'
import { show } from '../../testing/show'
import { CollectionSettings } from './CollectionSettings'
import { Sessions } from './Sessions'

describe('where one is signed in', () => {
  const session = (key: string, isThis: boolean) =>
    ({ key, isThis, started: '2026-11-28T10:00:00Z', address: '192.0.2.7', agent: 'A browser' })
  let open = [session('a', true), session('b', false)]
  beforeEach(() => {
    queryClient.clear()
    open = [session('a', true), session('b', false)]
  })

  it('ends another session by the keyboard, and never its own', async () => {
    const asked = serve(({ method, path }) => {
      if (method === 'GET') return { body: open }
      open = open.filter(({ key }) => !path.endsWith(`/${key}`))
      return { status: 204 }
    })
    const user = show(<Sessions />)
    expect(await screen.findByText('this one')).toBeTruthy()
    const end = screen.getByRole('button', { name: /End the session since/ })
    end.focus()
    await user.keyboard('{Enter}')
    await waitFor(() => { expect(screen.queryByRole('button')).toBeNull() })
    expect(screen.getByText('this one')).toBeTruthy()
    expect(asked.filter(({ method }) => method === 'DELETE').map(({ path }) => path)).toEqual(['/api/session/all/b'])
  })

  it('says when a session was gone already', async () => {
    serve(({ method }) => method === 'GET' ? { body: open } : refusal(404, 'There is no such session.'))
    const user = show(<Sessions />)
    await user.click(await screen.findByRole('button', { name: /End the session since/ }))
    expect(await screen.findByText(/There is no such session/)).toBeTruthy()
  })
})

describe('the settings of the collection', () => {
  const kept = { name: 'Estuary House', accessionPattern: 'EH-{number:4}', currency: 'EUR', timeZone: 'Europe/Lisbon',
    version: 4 }
  let now = kept
  let given = { pattern: 'EH-{number:4}', given: 12, gaps: [{ from: 'EH-0103', to: 'EH-0103', count: 1 }, { from: 'EH-0105', to: 'EH-0107', count: 3 }], explained: [] as object[] }
  beforeEach(() => {
    queryClient.clear()
    signIn('curator')
    now = kept
    given = { ...given, explained: [] }
  })
  const withSettings = (put: (asked: Asked) => { status?: number; body?: unknown }) => (asked: Asked) => {
    if (asked.path.includes('register') || asked.path.includes('numbers')) {
      return asked.method === 'GET' ? { body: given } : put(asked)
    }
    return asked.method === 'GET' ? { body: now } : put(asked)
  }

  it('are changed from the version that was read', async () => {
    const asked = serve(withSettings(({ body }) => {
      now = { ...kept, ...(body as object), version: 5 }
      return { body: now }
    }))
    const user = show(<CollectionSettings />)
    await user.click(await screen.findByRole('button', { name: 'Edit the collection' }))
    const currency = await screen.findByLabelText('Currency')
    await user.type(screen.getByLabelText('Mains here, in volts'), 'two hundred')
    await user.clear(currency)
    await user.type(currency, 'GBP{Enter}')
    expect(screen.getByText(/Write a figure, or nothing/)).toBeTruthy()
    expect(asked.some(({ method }) => method === 'PUT'), 'what cannot be read is not taken for nothing').toBe(false)
    await user.clear(screen.getByLabelText('Mains here, in volts'))
    await user.type(screen.getByLabelText('Mains here, in volts'), '230{Enter}')
    await waitFor(() => { expect(screen.queryByLabelText('Currency')).toBeNull() })
    expect(screen.getByText('GBP')).toBeTruthy()
    expect(asked.find(({ method }) => method === 'PUT')?.body)
      .toEqual({ name: 'Estuary House', accessionPattern: 'EH-{number:4}', currency: 'GBP', timeZone: 'Europe/Lisbon',
        mainsVolts: 230, mainsHz: 0, supplyMonths: 12, version: 4 })
  })

  it('offer the zones that days can be counted in, and the one of this device where none is chosen', async () => {
    now = { ...kept, timeZone: '' }
    const asked = serve(withSettings(({ body }) => {
      now = { ...kept, ...(body as object), version: 5 }
      return { body: now }
    }))
    const user = show(<CollectionSettings />)
    expect(await screen.findByText(/none chosen yet: days are counted in UTC/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Edit the collection' }))
    const zone = await screen.findByRole<HTMLInputElement>('combobox', { name: /^Time zone/ })
    expect(zone.value).toBe(Intl.DateTimeFormat().resolvedOptions().timeZone)
    await user.clear(zone)
    await user.type(zone, 'kiriti')
    await user.click(await screen.findByRole('option', { name: 'Pacific/Kiritimati' }))
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(await screen.findByText('Pacific/Kiritimati')).toBeTruthy()
    expect(asked.find(({ method }) => method === 'PUT')?.body).toMatchObject({ timeZone: 'Pacific/Kiritimati' })
  })

  it('that somebody else changed meanwhile are shown beside the own ones', async () => {
    serve(withSettings(() => refusal(409, 'The collection was changed by somebody else.',
      { newer: { collection: { ...kept, name: 'House on the estuary', version: 6 } } })))
    const user = show(<CollectionSettings />)
    await user.click(await screen.findByRole('button', { name: 'Edit the collection' }))
    await user.type(await screen.findByLabelText('Name of the collection'), ', east wing{Enter}')
    expect(await screen.findByText(/House on the estuary/)).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>('Name of the collection').value).toBe('Estuary House, east wing')
  })

  it('show what would become of numbers before they are taken over', async () => {
    const lines = [{ line: 1, number: 'EH-0103', note: 'given back', wrong: '' },
      { line: 2, number: '', note: '', wrong: 'holds no number' }]
    const asked = serve(withSettings(() => ({ body: lines })))
    const user = show(<CollectionSettings />)
    expect(await screen.findByText('EH-0105 to EH-0107 (3)')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: /Explain gaps/ }))
    await user.type(await screen.findByLabelText(/Numbers, a line each/), 'EH-0103; given back\nnonsense')
    await user.click(screen.getByRole('button', { name: 'See what would happen' }))
    const wrong = await screen.findByText(/line 2, no number: holds no number/)
    expect(within(wrong.closest('form') as HTMLElement).getByRole('button', { name: 'Take over 1 numbers' }))
      .toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Take over 1 numbers' }))
    await waitFor(() => { expect(screen.queryByLabelText(/Numbers, a line each/)).toBeNull() })
    expect(asked.filter(({ method }) => method === 'POST').map(({ body }) => (body as { dryRun: boolean }).dryRun))
      .toEqual([true, false])
  })
})
