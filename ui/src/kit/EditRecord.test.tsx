// @vitest-environment jsdom
import { cleanup, screen, waitFor } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'

import { type Party, useChangeParty } from '../api/parties'
import { allDrafts } from '../data/drafts'
import { dropOutbox, openOutbox, waitingChanges } from '../data/outbox'
import { PartyForm } from '../rooms/library/people/PartyForm'
import { signIn } from '../testing/people'
import { refusal, serve } from '../testing/server'
import { show } from '../testing/show'
import { EditRecord } from './EditRecord'

const party: Party = { id: 3, name: 'Pilot office', kind: 'organisation', private: false, role: '', spellings: '',
  place: 'quay', note: '', version: 4 }

function Edit({ onDone }: { onDone: () => void }) {
  const change = useChangeParty(party.id)
  return (
    <EditRecord keptAs="party 3" record={party} change={change} newerIn={(newer) => newer.party}
      names={{ name: 'name', place: 'place', note: 'note' }} onDone={onDone}>
      {(form) => <PartyForm start={party} action="Save" {...form} />}
    </EditRecord>
  )
}

describe('editing a record', () => {
  it('starts from the version that was read', async () => {
    const asked = serve(() => ({ body: { ...party, version: 5 } }))
    const onDone = vi.fn()
    const user = show(<Edit onDone={onDone} />)
    await user.clear(screen.getByLabelText('Name'))
    await user.type(screen.getByLabelText('Name'), 'Harbour pilot office{Enter}')
    await waitFor(() => { expect(onDone).toHaveBeenCalled() })
    expect(asked[0]?.body).toMatchObject({ name: 'Harbour pilot office', version: 4 })
  })

  it('shows what somebody else changed, and goes on over theirs only when told to', async () => {
    const theirs = { ...party, place: 'rope works', note: 'moved', version: 5 }
    const answers = [refusal(409, 'Changed by somebody else.', { newer: { party: theirs } }),
      { body: { ...theirs, version: 6 } }]
    const asked = serve(() => answers.shift() ?? {})
    const onDone = vi.fn()
    const user = show(<Edit onDone={onDone} />)
    await user.type(screen.getByLabelText('Note'), 'mine')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(await screen.findByText('place: rope works')).toBeTruthy()
    expect(screen.getByText('note: moved')).toBeTruthy()
    expect(screen.queryByText(/^name:/)).toBeNull()
    expect(screen.getByLabelText<HTMLTextAreaElement>('Note').value).toBe('mine')
    expect(onDone).not.toHaveBeenCalled()
    await user.click(screen.getByRole('button', { name: 'Go on with mine over theirs' }))
    expect(screen.queryByText('place: rope works')).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => { expect(onDone).toHaveBeenCalledOnce() })
    expect(asked.map(({ body }) => (body as { version: number }).version)).toEqual([4, 5])
  })

  it('goes on with what was typed earlier on the version of then, and forgets it once it is saved', async () => {
    const user = show(<Edit onDone={vi.fn()} />)
    await user.type(screen.getByLabelText('Note'), 'mine')
    cleanup()
    const answers = [refusal(409, 'Changed by somebody else.', { newer: { party: { ...party, place: 'loft', version: 5 } } }),
      { body: { ...party, version: 6 } }]
    const asked = serve(() => answers.shift() ?? {})
    const newer = { ...party, place: 'loft', version: 5 }
    function Later() {
      return <EditRecord keptAs="party 3" record={newer} change={useChangeParty(3)} newerIn={({ party: now }) => now}
        names={{ place: 'place' }} onDone={vi.fn()}>{(form) => <PartyForm start={newer} action="Save" {...form} />}
      </EditRecord>
    }
    show(<Later />)
    expect(screen.getByLabelText<HTMLTextAreaElement>('Note').value).toBe('mine')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(await screen.findByText('place: loft')).toBeTruthy()
    expect(allDrafts().map(({ name }) => name)).toEqual(['party 3'])
    await user.click(screen.getByRole('button', { name: 'Go on with mine over theirs' }))
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => { expect(allDrafts()).toEqual([]) })
    expect(asked.map(({ body }) => (body as { version: number }).version)).toEqual([4, 5])
  })

  it('is kept and left where there is no connection', async () => {
    signIn('curator')
    await openOutbox(1, { send: () => Promise.reject(new TypeError('Failed to fetch')), onSent: vi.fn(),
      onStranger: vi.fn(), onUnreachable: vi.fn() })
    serve(() => 'no connection')
    const onDone = vi.fn()
    const user = show(<Edit onDone={onDone} />)
    await user.type(screen.getByLabelText('Note'), 'from the loft')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => { expect(onDone).toHaveBeenCalled() })
    const [waiting] = waitingChanges()
    expect(waiting).toMatchObject({ method: 'PUT', address: '/api/parties/3', account: 1, refused: '' })
    expect(String(waiting?.body)).toContain('from the loft')
    expect(allDrafts(), 'it waits in the outbox').toEqual([])
    await dropOutbox()
  })

  it('can be dropped for theirs', async () => {
    serve(() => refusal(409, 'Changed by somebody else.', { newer: { party: { ...party, version: 5 } } }))
    const onDone = vi.fn()
    const user = show(<Edit onDone={onDone} />)
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await user.click(await screen.findByRole('button', { name: 'Drop mine' }))
    expect(onDone).toHaveBeenCalledOnce()
  })

  it('says other refusals in the form', async () => {
    serve(() => refusal(422, 'Pilot office is in the list already.',
      { errors: [{ location: 'body.name', message: 'Pilot office is in the list already.' }] }))
    const user = show(<Edit onDone={vi.fn()} />)
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(await screen.findByText('Pilot office is in the list already.')).toBeTruthy()
  })
})
