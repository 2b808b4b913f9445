// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'

import { queryClient } from '../../api/client'
import type { EventView } from '../../api/history'
import { type Asked, refusal, serve } from '../../testing/server'
import { show } from '../../testing/show'
import { HistoryList } from './HistoryList'

const event = (id: number, what: string, more: Partial<EventView> = {}): EventView => ({
  id, what, at: '2026-11-28T10:00:00Z', by: 'Bram Sedge', machineId: 3, accession: 'EH-0142', assemblyId: null,
    revision: 0,
  mayUndo: [], ...more,
})

const signedInAs = (role: string) => ({ account: { id: 1, name: 'Bram Sedge', role, mayWriteSheets: true,
  mayKeepTheRecord: role === 'curator' } })

const withPages = (role: string, undo: () => ReturnType<typeof refusal> | { status: number }) => (asked: Asked) => {
  if (asked.path === '/api/session') return { body: signedInAs(role) }
  if (asked.method === 'POST') return undo()
  const isSecond = asked.path.includes('before=8')
  return { body: isSecond ? { events: [event(7, 'entered it', { by: '' })], next: 0 }
    : { events: [event(9, 'saved the sheet', { mayUndo: ['curator', 'technician'] }),
      event(8, 'renamed the place', { mayUndo: ['curator'] })], next: 8 } }
}

const itemWith = (words: RegExp) => {
  const item = screen.getByText(words).closest('li')
  if (!item) throw new Error(`nothing says ${String(words)}`)
  return within(item)
}

describe('a history', () => {
  beforeEach(() => { queryClient.clear() })

  it('tells who did what to which machine, and goes on below', async () => {
    const asked = serve(withPages('technician', () => ({ status: 204 })))
    const user = show(<HistoryList of="collection" />)
    expect(await screen.findByText(/Bram Sedge saved the sheet/)).toBeTruthy()
    expect(itemWith(/saved the sheet/).getByRole('link', { name: 'EH-0142' }).getAttribute('href'))
      .toContain('/bench/3')
    await user.click(screen.getByRole('button', { name: 'Show earlier' }))
    expect(await screen.findByText(/The command line entered it/)).toBeTruthy()
    expect(screen.queryByRole('button', { name: 'Show earlier' })).toBeNull()
    expect(asked.filter(({ path }) => path.includes('history')).map(({ path }) => path.includes('before=8')))
      .toEqual([false, true])
  })

  it('of one machine does not name it on every line', async () => {
    serve(withPages('technician', () => ({ status: 204 })))
    show(<HistoryList of={{ machine: 3 }} />)
    expect(await screen.findByText(/saved the sheet/)).toBeTruthy()
    expect(screen.queryByRole('link')).toBeNull()
  })

  it('offers to take back what the own role may', async () => {
    const asked = serve(withPages('technician', () => ({ status: 204 })))
    const user = show(<HistoryList of="collection" />)
    await screen.findByText(/saved the sheet/)
    await waitFor(() => { expect(itemWith(/saved the sheet/).getByRole('button', { name: 'Undo' })).toBeTruthy() })
    expect(itemWith(/renamed the place/).queryByRole('button')).toBeNull()
    await user.click(itemWith(/saved the sheet/).getByRole('button', { name: 'Undo' }))
    await waitFor(() => {
      expect(asked.some(({ method, path }) => method === 'POST' && path.includes('/9'))).toBe(true)
    })
  })

  it('says why something was not taken back, at its line', async () => {
    serve(withPages('curator', () => refusal(422, 'Something was done to the same record since.')))
    const user = show(<HistoryList of="collection" />)
    await screen.findByText(/renamed the place/)
    const undo = await waitFor(() => itemWith(/renamed the place/).getByRole('button', { name: 'Undo' }))
    await user.click(undo)
    expect(await itemWith(/renamed the place/).findByText(/Something was done to the same record since/)).toBeTruthy()
  })

  it('says when it cannot be read', async () => {
    serve(({ path }) => path === '/api/session' ? { body: signedInAs('viewer') }
      : refusal(503, 'The database does not answer; try again in a moment.'))
    show(<HistoryList of="collection" />)
    expect(await screen.findByText(/The database does not answer/)).toBeTruthy()
  }, 20_000)
})
