// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { queryClient } from '../api/client'
import { show } from '../testing/show'
import { Boundary } from './Boundary'
import { Part } from './Part'

let failure: Error | undefined
function Fragile() {
  if (failure) throw failure
  return <p>all is well</p>
}

describe('a failure', () => {
  beforeEach(() => {
    vi.spyOn(console, 'error').mockImplementation(() => undefined)
    failure = new Error('a bug')
  })
  afterEach(() => { vi.restoreAllMocks() })

  it('stays in its part of the page, and is tried again', async () => {
    const user = show(<><Part title="First"><Fragile /></Part><Part title="Second"><p>goes on</p></Part></>)
    expect(screen.getByRole('alert').textContent).toContain('First cannot be shown.')
    expect(screen.getByText('goes on')).toBeTruthy()
    failure = undefined
    await user.click(screen.getByRole('button', { name: 'Try again' }))
    expect(screen.getByText('all is well')).toBeTruthy()
  })

  it('of a piece that is gone says that a newer version is here, or that there is no connection', async () => {
    failure = new TypeError('Failed to fetch dynamically imported module: /assets/Judge-1.js')
    const page = vi.spyOn(globalThis, 'fetch')
      .mockResolvedValue(new Response('<script type="module" src="/assets/index-2.js">'))
    show(<Boundary of="Judge"><Fragile /></Boundary>)
    expect(await screen.findByText('A newer version is here.')).toBeTruthy()
    expect(screen.getByRole('button', { name: 'Load the page again' })).toBeTruthy()
    cleanup()
    queryClient.clear()
    page.mockRejectedValue(new TypeError('Failed to fetch'))
    show(<Boundary of="Judge"><Fragile /></Boundary>)
    expect(await screen.findByText(/There is no connection/)).toBeTruthy()
  })

  it('is forgotten where one goes somewhere else', () => {
    failure = new Error('a bug')
    const page = (at: string) => <Boundary of="Room" at={at}><Fragile /></Boundary>
    const { rerender } = render(page('/a'))
    expect(screen.getByRole('alert')).toBeTruthy()
    failure = undefined
    rerender(page('/b'))
    expect(screen.getByText('all is well')).toBeTruthy()
  })
})
