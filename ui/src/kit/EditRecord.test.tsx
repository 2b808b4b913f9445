// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'

import { type Party, useChangeParty } from '../api/parties'
import { PartyForm } from '../rooms/library/people/PartyForm'
import { refusal, serve } from '../testing/server'
import { show } from '../testing/show'
import { EditRecord } from './EditRecord'

const party: Party = { id: 3, name: 'Pilot office', kind: 'organisation', private: false, role: '', spellings: '',
  place: 'quay', note: '', version: 4 }

function Edit({ onDone }: { onDone: () => void }) {
  const change = useChangeParty(party.id)
  return (
    <EditRecord record={party} change={change} newerIn={(newer) => newer.party}
      names={{ name: 'name', place: 'place', note: 'note' }} onDone={onDone}>
      {(form) => <PartyForm start={party} action="Keep it" {...form} />}
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
    await user.click(screen.getByRole('button', { name: 'Keep it' }))
    expect(await screen.findByText('place: rope works')).toBeTruthy()
    expect(screen.getByText('note: moved')).toBeTruthy()
    expect(screen.queryByText(/^name:/)).toBeNull()
    expect(screen.getByLabelText<HTMLTextAreaElement>('Note').value).toBe('mine')
    expect(onDone).not.toHaveBeenCalled()
    await user.click(screen.getByRole('button', { name: 'Go on with mine over theirs' }))
    expect(screen.queryByText('place: rope works')).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Keep it' }))
    await waitFor(() => { expect(onDone).toHaveBeenCalledOnce() })
    expect(asked.map(({ body }) => (body as { version: number }).version)).toEqual([4, 5])
  })

  it('can be dropped for theirs', async () => {
    serve(() => refusal(409, 'Changed by somebody else.', { newer: { party: { ...party, version: 5 } } }))
    const onDone = vi.fn()
    const user = show(<Edit onDone={onDone} />)
    await user.click(screen.getByRole('button', { name: 'Keep it' }))
    await user.click(await screen.findByRole('button', { name: 'Drop mine' }))
    expect(onDone).toHaveBeenCalledOnce()
  })

  it('says other refusals in the form', async () => {
    serve(() => refusal(422, 'Pilot office is in the list already.',
      { errors: [{ location: 'body.name', message: 'Pilot office is in the list already.' }] }))
    const user = show(<Edit onDone={vi.fn()} />)
    await user.click(screen.getByRole('button', { name: 'Keep it' }))
    expect(await screen.findByText('Pilot office is in the list already.')).toBeTruthy()
  })
})
