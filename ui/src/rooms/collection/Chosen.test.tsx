// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'

import type { Schemas } from '../../api/client'
import { signIn } from '../../testing/people'
import { refusal, serve } from '../../testing/server'
import { show } from '../../testing/show'
import { Chosen } from './Chosen'
import { SavedFilters } from './SavedFilters'

const machines = [1, 2, 3].map((id) => ({ id, accession: `EH-000${String(id)}` })) as Schemas['ListedMachine'][]

describe('machines that were chosen in the list', () => {
  it('are moved one after the other, each from the version it has; one that is refused is named with why', async () => {
    signIn('curator')
    const asked = serve(({ method, path }) => {
      if (method === 'GET') return { body: path.startsWith('/api/machines/') ? { id: 1, version: 7 } : [] }
      return path.includes('/2/') ? refusal(409, 'It was changed by somebody else.') : { body: {} }
    })
    const user = show(<Chosen chosen={new Set([1, 2])} machines={machines} onClear={() => undefined} />)
    expect(screen.getByText('2 machines chosen')).toBeTruthy()
    expect(screen.getByText('Export as CSV').getAttribute('href')).toBe('/api/machines.csv?id=1&id=2')
    await user.click(screen.getByRole('button', { name: 'Move them' }))
    await user.type(screen.getByLabelText(/^Place/), 'Seed loft')
    await user.click(screen.getByRole('button', { name: 'Move them' }))
    expect(await screen.findByText('EH-0002: It was changed by somebody else.')).toBeTruthy()
    expect(screen.getByText(/^1 is moved/)).toBeTruthy()
    const moves = asked.filter(({ method }) => method === 'POST')
    expect(moves.map(({ path }) => path)).toEqual(['/api/machines/1/moves', '/api/machines/2/moves'])
    expect(moves[0]?.body).toMatchObject({ version: 7, to: 'place', place: 'Seed loft' })
  })

  it('are looked at by viewers, who move nothing; choosing none leaves them', async () => {
    signIn('viewer')
    serve(() => ({ body: [] }))
    const clear = vi.fn()
    const user = show(<Chosen chosen={new Set([3])} machines={machines} onClear={clear} />)
    expect(screen.queryByRole('button', { name: 'Move them' })).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Choose none' }))
    expect(clear).toHaveBeenCalled()
  })
})

describe('saved filters', () => {
  it('are kept under a name, lead back to their address, and are forgotten', async () => {
    signIn('curator')
    const user = show(<SavedFilters list="machines" page="/collection" filter="place=Loft" />)
    await user.click(screen.getByRole('button', { name: 'Save this filter' }))
    await user.type(screen.getByLabelText('Name of the filter'), 'In the loft{Enter}')
    const link = await screen.findByRole('link', { name: 'In the loft' })
    expect([link.getAttribute('href'), link.getAttribute('aria-current')]).toEqual(['/collection?place=Loft', 'true'])
    signIn('curator', 2)
    expect(JSON.stringify({ ...localStorage })).toContain('heron.liked.1.')
    signIn('curator', 1)
    await user.click(screen.getByRole('button', { name: 'Forget the filter In the loft' }))
    await waitFor(() => { expect(screen.queryByRole('link')).toBeNull() })
  })
})
