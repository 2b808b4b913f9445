// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { Sign, SignList } from '../../../api/signs'
import { signIn } from '../../../testing/people'
import { refusal, serve } from '../../../testing/server'
import { show } from '../../../testing/show'
import SignLists from './SignLists'

const sign = (line: number, more: Partial<Sign>): Sign => ({ line, kind: 'screen', shown: 'BANK ?', lit: '', state: '',
  meaning: 'a chip fails', next: '', source: '', expected: false, with: [], without: [], ...more })
const list = (of: string, modelId: number, signs: Sign[], more: Partial<SignList['table']> = {}): SignList => ({ of, modelId,
  knownId: modelId ? 0 : 5, table: { row: ['power', 'fault'], radix: '', fields: '', signs, ...more } })

describe('the signs of models and cards', () => {
  it('stand by whom they are shown, with what they mean, for which cards, and who says so', async () => {
    signIn('viewer')
    const asked = serve(() => ({ body: [list('Meridian 2', 1, [sign(2, { kind: 'lamps', shown: 'power', lit: '1*',
      state: 'ready', meaning: 'waits', expected: true, with: ['4424-1'], source: 'Handbook', next: 'type' }),
    sign(3, { without: ['RA-512'] })], { radix: 'hex', fields: '7-4 bank' }), list('Disk card', 0, [sign(1, {})]),
    list('Nothing left', 2, [])] }))
    const user = show(<SignLists />)
    const model = await screen.findByRole('region', { name: 'Meridian 2' })
    const rows = within(model).getAllByRole('row').slice(1).map((row) =>
      within(row).getAllByRole('cell').map((cell) => cell.textContent.trim()))
    expect(rows).toEqual([['powerfault', 'ready', 'expected: waitswith 4424-1', 'type', 'Handbook'],
      ['screen BANK ?', 'any time', 'a chip failswithout RA-512', 'nothing is told', 'recalled']])
    expect(within(model).getByRole('img', { name: 'power lit, fault blinking' })).toBeTruthy()
    expect(within(model).getByText('Codes are hex, cut into 7-4 bank.')).toBeTruthy()
    expect(within(model).getByRole('link', { name: 'the model' }).getAttribute('href')).toBe('/library/models/1')
    expect(screen.getByRole('link', { name: 'the card' }).getAttribute('href')).toBe('/library/known/5')
    expect(screen.queryByRole('region', { name: 'Nothing left' })).toBeNull()
    await user.type(screen.getByLabelText('Model, sign, meaning'), 'bank')
    await waitFor(() => { expect(asked.at(-1)?.path).toBe('/api/signs?search=bank') })
  })

  it('are asked for where there is none, and a refusal is told', async () => {
    signIn('viewer')
    serve(() => ({ body: [] }))
    show(<SignLists />)
    expect(await screen.findByText(/Nobody has written down a sign yet/)).toBeTruthy()
    document.body.replaceChildren()
    serve(() => refusal(422, 'too many words'))
    const user = show(<SignLists />)
    await user.type(screen.getByLabelText('Model, sign, meaning'), 'x')
    expect(await screen.findByText(/too many words/)).toBeTruthy()
  })
})
