// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { Machine } from '../../api/machines'
import type { Serving } from '../../api/peripherals'
import { signIn } from '../../testing/people'
import { refusal, serve } from '../../testing/server'
import { show } from '../../testing/show'
import { Peripherals } from './Peripherals'
import { Serves } from './Serves'

const machine = { id: 3, accession: 'EH-0142' } as unknown as Machine
const serving = (more: Partial<Serving['standing']> = {}) => ({ id: 5, assemblyId: 8, title: 'Keyboard', inId: null,
  machineId: 3, accession: 'EH-0142', machine: 'Meridian 2', as: 'keyboard', without: 'it waits for a key', version: 2,
  standing: { state: 'there', why: 'it lies at Shelf C', others: ['EH-0121'], instead: [], stops: '', isNeeded: true,
    ...more } }) as unknown as Serving
const answering = (all: Serving[]) => serve((asked) => {
  if (asked.method !== 'GET') return { body: { ...serving(), event: 7 } }
  if (asked.path.startsWith('/api/assemblies?')) {
    return { body: { assemblies: [{ id: 8, title: 'Keyboard', part: 'KB-83', lentTo: '', place: 'Shelf C' }], next: 0 } }
  }
  if (asked.path.startsWith('/api/machines?')) {
    return { body: { machines: [{ id: 4, accession: 'EH-0121', name: 'Lido 32' }], total: 1, next: '' } }
  }
  return { body: all }
})

describe('a peripheral', () => {
  it('is told with where it is, whom else it serves, and what stops without it', async () => {
    signIn('viewer')
    answering([serving(), { ...serving({ state: 'lent', why: 'it is lent to the club', stops: 'no disk is copied' }), id: 6 }])
    show(<Peripherals machine={machine} mayWrite={false} />)
    expect((await screen.findAllByRole('listitem')).map((item) => item.textContent.replaceAll(/\s+/g, ' '))).toEqual([
      expect.stringContaining('Keyboard, as keyboard: it lies at Shelf C. Without it: it waits for a key. It serves EH-0121, too.'),
      expect.stringContaining('it is lent to the club; without it: no disk is copied.')])
    expect(screen.queryByRole('button')).toBeNull()
  })

  it('is picked from store for a machine, and says no more in the version that was read', async () => {
    signIn('curator')
    const asked = answering([serving()])
    const user = show(<Peripherals machine={machine} mayWrite />)
    await user.click(await screen.findByRole('button', { name: 'Say what serves it' }))
    await user.type(screen.getByLabelText(/^As/), 'keyboard')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(await screen.findByText('Choose one of those that are in store or lent.')).toBeTruthy()
    await user.type(screen.getByRole('combobox', { name: 'What is in store or lent' }), 'Key')
    await user.click(await screen.findByRole('option', { name: 'Keyboard, KB-83, Shelf C' }))
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => { expect(asked.find(({ method }) => method === 'POST')).toMatchObject({
      path: '/api/assemblies/8/serves', body: { machineId: 3, as: 'keyboard', without: '' } }) })
    await user.click(await screen.findByRole('button', { name: 'Keyboard serves EH-0142 as keyboard no more' }))
    await waitFor(() => { expect(asked.map(({ path }) => path)).toContain('/api/serves/5/end?version=2') })
  })

  it('is refused at its field where it serves the machine already', async () => {
    signIn('curator')
    serve(({ method, path }) => method === 'POST' ? refusal(422, 'refused', { errors: [{ location: 'body.machineId',
      message: 'it serves that machine as keyboard already' }] }) : path.startsWith('/api/machines?')
      ? { body: { machines: [{ id: 4, accession: 'EH-0121', name: 'Lido 32' }], total: 1, next: '' } } : { body: [] })
    const user = show(<Serves assemblyId={8} mayWrite />)
    await user.click(await screen.findByRole('button', { name: 'Say what it serves' }))
    await user.type(screen.getByRole('combobox', { name: 'Machine' }), 'Lido')
    await user.click(await screen.findByRole('option', { name: 'EH-0121 Lido 32' }))
    await user.type(screen.getByLabelText(/^As/), 'keyboard')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(await screen.findByText('it serves that machine as keyboard already')).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>(/^As/).value).toBe('keyboard')
  })

  it('tells what the machines lose that it serves, and takes another one', async () => {
    signIn('curator')
    const asked = answering([serving(), { ...serving({ isNeeded: false, instead: ['Old keyboard'] }), id: 6 }])
    const user = show(<Serves assemblyId={8} mayWrite />)
    expect(await screen.findByText(/Without it: it waits for a key/)).toBeTruthy()
    expect(screen.getByText('Old keyboard could serve it instead.')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Say what it serves' }))
    await user.type(screen.getByRole('combobox', { name: 'Machine' }), 'Lido')
    await user.click(await screen.findByRole('option', { name: 'EH-0121 Lido 32' }))
    await user.type(screen.getByLabelText(/^As/), 'keyboard')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => { expect(asked.find(({ method }) => method === 'POST')).toMatchObject({
      path: '/api/assemblies/8/serves', body: { machineId: 4, as: 'keyboard' } }) })
  })
})
