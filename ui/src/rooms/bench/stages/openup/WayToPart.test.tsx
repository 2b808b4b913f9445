// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { Route, Routes } from 'react-router'
import { describe, expect, it } from 'vitest'

import type { Way } from '../../../../api/openup'
import { signIn } from '../../../../testing/people'
import { serve } from '../../../../testing/server'
import { show } from '../../../../testing/show'
import WayOnPaper from './WayOnPaper'
import { WayToPart } from './WayToPart'

const way = (by: string, more: Partial<Way> = {}) => ({ by, procedureId: 1, to: 'BT1', state: 'known',
  words: 'To BT1: 2 of 9 steps, PH1', first: ['Mains lead out.', 'Settings read out.'], of: 9, tools: ['PH1'], tabs: [],
  plugs: ['J5'], minutes: 4, untimed: 0, look: ['green below BT1'], unsaid: [], steps: [
    { n: 1, assumed: false, step: { off: 'Lid', fasteners: [{ count: 4, kind: 'M3', lengthMm: 6, washer: '', tool: 'PH1' }],
      tabs: ['rear left'], connectors: [], look: [], note: '' } },
    { n: 4, assumed: true, step: { off: 'Cage', fasteners: [], tabs: [], connectors: ['J5'], look: ['green below BT1'],
      note: 'tilt it' } }], ...more }) as unknown as Way

const answering = (ways: Way[]) => serve((asked) => ({ body: asked.path.includes('/way?') ? ways
  : { id: 3, accession: 'EH-0142', name: 'Meridian 2' } }))

describe('the way to a part', () => {
  it('is told by each procedure and log, with what is not said', async () => {
    signIn('viewer')
    const asked = answering([way('Down to the board'), way('Log of 2025', { state: 'nobody', steps: [], look: [],
      words: 'Nobody got there yet; nearest: Cage' })])
    const user = show(<WayToPart machineId={3} />)
    await user.type(screen.getByLabelText('Part or board'), 'BT1{Enter}')
    const first = await screen.findByRole('region', { name: 'Down to the board' })
    expect(within(first).getAllByRole('listitem').map((item) => item.textContent)).toEqual(['1. Lid mind: rear left',
      '4. Cage unplug J5; nobody said what it needs: all before it are counted'])
    expect(screen.getByText('Nobody got there yet; nearest: Cage')).toBeTruthy()
    expect(within(screen.getByRole('region', { name: 'Before anything' })).getAllByRole('listitem')).toHaveLength(2)
    expect(screen.getByRole('link', { name: /On paper/ }).getAttribute('href')).toBe('/bench/3/way?to=BT1')
    expect(asked.at(-1)?.path).toBe('/api/machines/3/way?to=BT1')
  })

  it('says what nobody wrote down yet', async () => {
    signIn('viewer')
    answering([])
    const user = show(<WayToPart machineId={3} />)
    await user.type(screen.getByLabelText('Part or board'), 'BT1{Enter}')
    expect(await screen.findByText(/tells yet how it is taken apart/)).toBeTruthy()
  })

  it('goes on paper with a box for each step, its screws, and the way back', async () => {
    signIn('viewer')
    answering([way('Down to the board', { unsaid: ['shield'] })])
    show(<Routes><Route path="/bench/:machineId/way" element={<WayOnPaper />} /></Routes>, '/bench/3/way?to=BT1')
    expect((await screen.findByRole('heading', { level: 1 })).textContent).toBe('EH-0142 Meridian 2: way to BT1')
    const steps = within(screen.getByRole('region', { name: 'Down to the board' })).getAllByRole('listitem')
    expect(steps[0]?.textContent).toBe('1. Lid4 x M3 x 6 mm, PH1mind: rear left')
    expect(steps[1]?.textContent).toContain('look at: green below BT1tilt it')
    expect(screen.getByText('Needed, and no step takes it off: shield.')).toBeTruthy()
    await waitFor(() => { expect(screen.getByRole('link').getAttribute('href')).toBe('/bench/3/open-up?way=BT1') })
  })
})
