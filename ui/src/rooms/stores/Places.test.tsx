// @vitest-environment jsdom
import { screen, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'

import { queryClient } from '../../api/client'
import { refusal, serve } from '../../testing/server'
import { show } from '../../testing/show'
import Places from './Places'

const who = { id: 1, name: 'Ottilie Wren', role: 'curator', mayWriteSheets: true, mayKeepTheRecord: true }
let places: object[] = []

const answer = ({ method, path, body }: { method: string; path: string; body: unknown }) => {
  if (path === '/api/session') return { body: { account: who } }
  if (method === 'GET') return { body: places }
  const { from, to } = body as { from: string; to: string }
  if (to === 'Mill') return refusal(422, 'Not acceptable as it is',
    { errors: [{ location: 'body.to', message: 'Mill is in the list already.' }] })
  places = places.map((p) => ({ ...p, name: (p as { name: string }).name.replace(from, to) }))
  return { body: { event: 7 } }
}

describe('places', () => {
  beforeEach(() => {
    queryClient.clear()
    places = [{ name: 'Loft', climate: 'damp', machines: 2, assemblies: 0 },
      { name: 'Loft, shelf 3', climate: '', machines: 1, assemblies: 4 },
      { name: 'Mill', climate: '', machines: 0, assemblies: 1 }]
  })

  it('are counted with all that lies in them', async () => {
    serve(answer)
    show(<Places />)
    const loft = (await screen.findAllByRole('row'))[1]
    expect(within(loft as HTMLElement).getByRole('link', { name: '3' })).toBeTruthy()
    expect(within(loft as HTMLElement).getByRole('link', { name: '4' })).toBeTruthy()
  })

  it('are renamed by the keyboard, with what lies in them', async () => {
    const asked = serve(answer)
    const user = show(<Places />)
    const rename = await screen.findByRole('button', { name: 'Rename Loft' })
    rename.focus()
    await user.keyboard('{Enter}')
    const field = await screen.findByLabelText('What Loft is called from now on')
    expect(document.activeElement).toBe(field)
    await user.clear(field)
    await user.keyboard('Attic{Enter}')
    expect(await screen.findByRole('button', { name: 'Rename Attic, shelf 3' })).toBeTruthy()
    expect(asked.find(({ method }) => method === 'PUT')?.body).toEqual({ from: 'Loft', to: 'Attic' })
  })

  it('say what is wrong with a name, and keep what was typed', async () => {
    serve(answer)
    const user = show(<Places />)
    await user.click(await screen.findByRole('button', { name: 'Rename Loft' }))
    const field = await screen.findByLabelText<HTMLInputElement>('What Loft is called from now on')
    await user.clear(field)
    await user.type(field, 'Mill')
    await user.click(screen.getByRole('button', { name: 'Rename' }))
    expect(await screen.findByText('Mill is in the list already.')).toBeTruthy()
    expect(field.value).toBe('Mill')
    await user.click(screen.getByRole('button', { name: 'Cancel' }))
    expect(screen.getByRole('button', { name: 'Rename Loft' })).toBeTruthy()
  })

  it('are only shown to others', async () => {
    serve((asked) => asked.path === '/api/session'
      ? { body: { account: { ...who, role: 'viewer', mayKeepTheRecord: false } } } : answer(asked))
    show(<Places />)
    expect(await screen.findByText('damp: cellar, shed')).toBeTruthy()
    expect(screen.queryByRole('button')).toBeNull()
  })
})
