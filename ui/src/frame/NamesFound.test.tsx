// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'

import type { Mention } from '../api/mentions'
import { offerMentions } from '../api/mentions'
import { Mentions } from '../rooms/library/people/Mentions'
import { refusal, serve } from '../testing/server'
import { show } from '../testing/show'
import { NamesFound } from './NamesFound'

const mention = (id: number, spelling: string, around: string): Mention => ({
  id, spelling, around, partyId: 7, party: 'Rose Tregear', role: 'a neighbour', machineId: 3, lotId: null,
    accession: 'EH-0142', subject: 'machine',
  at: '2026-11-28T10:00:00Z', meant: null, version: 1,
})

let open: Mention[] = []
const answer = ({ method, path, body }: { method: string; path: string; body: unknown }) => {
  if (method === 'GET') return { body: open }
  open = open.filter(({ id }) => path !== `/api/mentions/${String(id)}/decision`)
  return { status: 204, body: body === undefined ? undefined : undefined }
}

describe('names found in what was saved', () => {
  beforeEach(() => {
    open = [mention(2, 'rose', 'the voltage rose'), mention(1, 'R. Tregear', 'given by R. Tregear in person')]
  })

  it('are asked about only when they were just saved', () => {
    const asked = serve(answer)
    show(<NamesFound />)
    expect(screen.queryByRole('button')).toBeNull()
    expect(asked).toEqual([])
  })

  it('are not asked about beside the list of all of them', () => {
    serve(answer)
    show(<NamesFound />, '/library/people')
    offerMentions(true)
    expect(screen.queryByRole('button')).toBeNull()
  })

  it('are asked about one after the other, and each answer is kept', async () => {
    const asked = serve(answer)
    const user = show(<NamesFound />)
    offerMentions(true)
    expect((await screen.findByRole('status')).textContent).toBe('')
    expect(await screen.findByText(/“rose” stands in a text/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'No, leave the word' }))
    expect(await screen.findByText(/“R. Tregear” stands in a text/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'It is Rose Tregear' }))
    await waitFor(() => { expect(screen.queryByText(/stands in a text/)).toBeNull() })
    const decided = asked.filter(({ method }) => method === 'POST').map(({ path, body }) => [path, body])
    expect(decided).toEqual([['/api/mentions/2/decision', { version: 1, meant: false }], ['/api/mentions/1/decision',
      { version: 1, meant: true }]])
  })

  it('can wait, and say what went wrong', async () => {
    serve((asked) => (asked.method === 'GET' ? { body: open } : refusal(409, 'Somebody else has said so already.')))
    const user = show(<NamesFound />)
    offerMentions(true)
    await user.click(await screen.findByRole('button', { name: 'It is Rose Tregear' }))
    expect(await screen.findByText('Not saved: Somebody else has said so already.')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Later' }))
    expect(screen.queryByRole('button')).toBeNull()
  })

  it('stand in the list of people, with the words around them and where they are', async () => {
    serve(answer)
    const user = show(<Mentions />)
    const cell = await screen.findByText('R. Tregear')
    expect(cell.tagName).toBe('STRONG')
    expect(cell.parentElement?.textContent).toBe('given by R. Tregear in person')
    expect(screen.getAllByRole('link', { name: 'EH-0142' })[0]?.getAttribute('href')).toBe('/bench/3')
    for (const { id } of [...open]) {
      const before = screen.getAllByRole('button', { name: 'Leave the word' }).length
      await user.click(screen.getAllByRole('button', { name: 'Leave the word' })[0] as HTMLElement)
      await waitFor(() => {
        expect(screen.queryAllByRole('button', { name: 'Leave the word' }).length).toBe(before - 1)
      })
      expect(id).toBeGreaterThan(0)
    }
    expect(screen.queryByText('Names found in texts')).toBeNull()
  })
})
