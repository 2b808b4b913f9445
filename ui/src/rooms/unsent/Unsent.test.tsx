// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import { keepForLater, openOutbox, sendWaiting, waitingChanges } from '../../data/outbox'
import { allDrafts, keepUnder } from '../../data/drafts'
import { unreached } from '../../data/connection'
import { SignOut } from '../../frame/SignOut'
import { Unsent as Strip } from '../../frame/Unsent'
import { signIn } from '../../testing/people'
import { serve } from '../../testing/server'
import { show } from '../../testing/show'
import Unsent from './Unsent'
import { wordsOf } from './words'

const change = (address: string, body: string | Blob) => ({ method: 'POST', address, body, type: 'application/json',
  key: address, at: '2026-11-29T10:00:00Z', page: '/bench/9/judge', title: 'EH-0142 - Judge' })
let status = 200
beforeEach(async () => {
  status = 200
  signIn('curator')
  await openOutbox(1, { send: () => Promise.resolve(new Response('{"detail":"Not as it is."}', { status })),
    onSent: vi.fn(), onStranger: vi.fn(), onUnreachable: vi.fn() })
})

describe('what is not sent yet', () => {
  it('is said on every page, shown with its words, and tried again or given up', async () => {
    await keepForLater(change('/api/findings', '{"version":3,"note":"crust","machineId":9}'))
    await keepForLater(change('/api/machines/9/attachments', new File(['x'], 'rear.jpg')))
    unreached()
    const user = show(<><Strip /><Unsent /></>)
    expect(screen.getByText(/2 things kept here, waiting for a connection/)).toBeTruthy()
    expect(screen.getByText('crust')).toBeTruthy()
    expect(screen.getByText('rear.jpg')).toBeTruthy()
    status = 422
    await sendWaiting()
    expect(await screen.findByText(/2 things were not taken/)).toBeTruthy()
    expect(screen.getAllByText('Not as it is.')).toHaveLength(2)
    status = 200
    const [first] = screen.getAllByRole('button', { name: 'Try again' })
    await user.click(first as HTMLElement)
    await waitFor(() => { expect(waitingChanges()).toHaveLength(1) })
    await user.click(screen.getByRole('button', { name: /Delete what waits of/ }))
    expect(await screen.findByText('Nothing waits.')).toBeTruthy()
  })

  it('has what is begun, with the way back to its form', async () => {
    keepUnder('finding of 9', { base: { version: 2 }, fields: { Kind: 'leaking', severity: 'hazard' } })
    const user = show(<Unsent />)
    expect(await screen.findByText('leaking · hazard')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Delete finding of 9' }))
    expect(await screen.findByText('Nothing is begun.')).toBeTruthy()
  })

  it('is asked about when somebody signs out: it stays, or goes', async () => {
    const asked = serve(() => ({ status: 204 }))
    keepUnder('finding of 9', { fields: { Kind: 'leaking' } })
    const user = show(<SignOut />)
    await user.click(screen.getByRole('button', { name: 'Sign out' }))
    const dialog = await screen.findByRole('dialog')
    expect(within(dialog).getByText('1 thing is not sent yet')).toBeTruthy()
    expect(asked).toHaveLength(0)
    await user.click(within(dialog).getByRole('button', { name: 'Cancel' }))
    await user.click(screen.getByRole('button', { name: 'Sign out' }))
    await user.click(await screen.findByRole('button', { name: 'Delete them and sign out' }))
    await waitFor(() => { expect(asked.map(({ method }) => method)).toEqual(['DELETE']) })
    expect(allDrafts()).toEqual([])
  })

  it('says where signing out fails, and that one is still signed in', async () => {
    serve(() => 'no connection')
    const user = show(<SignOut />)
    await user.click(screen.getByRole('button', { name: 'Sign out' }))
    expect(await screen.findByText('Not signed out.')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Cancel' }))
    await waitFor(() => { expect(screen.queryByRole('dialog')).toBeNull() })
  })

  it('is told by the words that were typed', () => {
    expect(wordsOf('{"version":3,"on":"2026-11-29","parts":["BT1",{"note":" crust "}],"assemblyId":4}'))
      .toBe('2026-11-29 · BT1 · crust')
    expect(wordsOf('not json')).toBe('not json')
    expect(wordsOf({ base: 1, text: 'U1 7400' })).toBe('U1 7400')
  })
})
