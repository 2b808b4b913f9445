// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import { queryClient } from '../../api/client'
import type { ListedAccount } from '../../api/people'
import { type Asked, refusal, serve } from '../../testing/server'
import { show } from '../../testing/show'
import { Person } from './Person'

const bram: ListedAccount = { id: 2, login: 'bram', name: 'Bram Sedge', role: 'technician', disabled: false,
  invited: false,
  version: 3, createdAt: '2026-01-01T00:00:00Z' } as ListedAccount
const me = { id: 1, name: 'Ottilie Wren', role: 'curator', mayWriteSheets: true, mayKeepTheRecord: true }

const row = (account: ListedAccount, onReset = () => undefined) =>
  show(<table><tbody><Person account={account} onReset={onReset} /></tbody></table>)

const change = (answer: (asked: Asked) => { status?: number; body?: unknown }) =>
  serve((asked) => asked.path === '/api/session' ? { body: { account: me } }
    : asked.method === 'GET' ? { body: [bram] } : answer(asked))

describe('an account, to a curator', () => {
  beforeEach(() => { queryClient.clear() })

  it('is disabled and let in again, from the version that was read', async () => {
    const asked = change(({ body }) => ({ body: { ...bram, ...(body as object) } }))
    const user = row(bram)
    await user.click(await screen.findByRole('button', { name: 'Disable Bram Sedge' }))
    await waitFor(() => { expect(asked.some(({ method }) => method === 'PUT')).toBe(true) })
    expect(asked.find(({ method }) => method === 'PUT')?.body)
      .toEqual({ name: 'Bram Sedge', role: 'technician', disabled: true, version: 3 })
  })

  it('that is disabled cannot be sent a link, and can be let in again', () => {
    change(() => ({}))
    row({ ...bram, disabled: true })
    expect(screen.getByText('disabled: cannot sign in')).toBeTruthy()
    expect(screen.queryByRole('button', { name: /Reset the password/ })).toBeNull()
    expect(screen.getByRole('button', { name: 'Let in again: Bram Sedge' })).toBeTruthy()
  })

  it('of somebody invited gets another link', async () => {
    change(() => ({}))
    const onReset = vi.fn()
    const user = row({ ...bram, invited: true }, onReset)
    await user.click(screen.getByRole('button', { name: 'New link for Bram Sedge' }))
    expect(onReset).toHaveBeenCalledOnce()
  })

  it('is edited by the keyboard; a refusal keeps what was typed', async () => {
    const asked = change(() => refusal(409, 'The account was changed by somebody else since you read it.'))
    const user = row(bram)
    await user.click(screen.getByRole('button', { name: 'Edit Bram Sedge' }))
    const name = await screen.findByLabelText<HTMLInputElement>('Name of bram')
    await user.clear(name)
    await user.keyboard('Bram H. Sedge')
    await user.selectOptions(screen.getByLabelText('Role of bram'), 'curator')
    name.focus()
    await user.keyboard('{Enter}')
    expect(await screen.findByText(/was changed by somebody else/)).toBeTruthy()
    expect(name.value).toBe('Bram H. Sedge')
    expect(asked.find(({ method }) => method === 'PUT')?.body)
      .toEqual({ name: 'Bram H. Sedge', role: 'curator', disabled: false, version: 3 })
  })

  it('of one self stays: neither role nor door', async () => {
    change(() => ({}))
    const user = row({ ...bram, id: 1, login: 'ottilie', name: 'Ottilie Wren', role: 'curator' })
    expect(await screen.findByText(/this is you/)).toBeTruthy()
    expect(screen.queryByRole('button', { name: /Disable/ })).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Edit Ottilie Wren' }))
    expect(await screen.findByLabelText('Name of ottilie')).toBeTruthy()
    expect(screen.queryByLabelText('Role of ottilie')).toBeNull()
  })
})
