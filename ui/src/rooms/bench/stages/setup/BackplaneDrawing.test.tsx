// @vitest-environment jsdom
import 'fake-indexeddb/auto'

import { screen, within } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'

import type { SlotPlan } from '../../../../api/setup'
import { show } from '../../../../testing/show'
import { BackplaneDrawing } from './BackplaneDrawing'
import { BackplaneForm } from './BackplaneForm'
import { MemoryRulesForm } from './MemoryRulesForm'

const card = (assemblyId: number, name: string, slot: string, more = {}) => ({ assemblyId, version: 1, name, slot,
  onBoard: false,
  fitted: true, needs: [], draw: [], wrong: false, ...more })
const slot = (id: string, chain: number, cards: number[], filler = false) => ({ id, chain, cards, filler })
const plan = { rows: [
  { chassis: 'Cage', name: 'top', kind: 'quad', slots: [slot('1', 1, [7]), slot('2', 2, [7]), slot('3', 3, [8, 9])] },
  { chassis: 'Cage', name: 'bottom', kind: 'quad', slots: [slot('4', 6, []), slot('5', 5, [], true), slot('6', 4, [10])] },
  { chassis: 'Box', name: '', kind: '', slots: [slot('X', 0, [])] }],
cards: [card(7, 'Wide card', '1'), card(8, 'Modem', '3', { wrong: true, needs: [{ resource: 'irq', now: '', choices: ['3', '4'] }] }),
  card(9, 'Clock card', '3'), card(10, 'Net card', '6', { fitted: false }), card(11, 'Main board', '', { onBoard: true }),
  card(12, 'Lost card', '')] } as unknown as SlotPlan

describe('the drawing of a backplane', () => {
  it('shows rows as they stand, the way of the bus, and what is covered, doubled, missing or nowhere', () => {
    show(<BackplaneDrawing plan={plan} inHand={7} onTake={vi.fn()} onMove={vi.fn()} />)
    expect(screen.getAllByRole('heading').map(({ textContent }) => textContent)).toEqual(['Cage', 'Box'])
    expect(screen.getByText('top · quad · the bus runs →')).toBeTruthy()
    expect(screen.getByText('bottom · quad · the bus runs ←')).toBeTruthy()
    expect(screen.getByText('kind not known')).toBeTruthy()
    expect(screen.getByText('covered by Wide card')).toBeTruthy()
    expect(screen.getByText(/two in one slot/)).toBeTruthy()
    expect(screen.getByText(/needs a filler/)).toBeTruthy()
    expect(screen.getByText('thought in')).toBeTruthy()
    expect(screen.getByText('irq 3 or 4?')).toBeTruthy()
    expect(screen.queryByText('Main board')).toBeNull()
    expect(screen.getByText('in no slot that is known').parentElement?.textContent).toContain('Lost card')
    expect(screen.getByRole('button', { pressed: true }).textContent).toContain('Wide card')
  })

  it('gives a card into the hand', async () => {
    const onTake = vi.fn()
    const user = show(<BackplaneDrawing plan={plan} inHand={null} onTake={onTake} onMove={vi.fn()} />)
    await user.tab()
    await user.keyboard('{Enter}')
    expect(onTake).toHaveBeenCalledWith(7)
  })
})

describe('what others of the model have', () => {
  const form = { error: null, isPending: false, onCancel: vi.fn() }
  it('is taken over for slots and for modules, and can be changed before it is saved', async () => {
    const onSlots = vi.fn()
    const onRules = vi.fn()
    const user = show(<>
      <section aria-label="slots"><BackplaneForm {...form} keptAs="a" start={{ layout: '', note: '' }} onSubmit={onSlots}
        offered={[{ accession: 'EH-0107', layout: 'row A | 8-bit | 1', note: '' }]} /></section>
      <section aria-label="modules"><MemoryRulesForm {...form} keptAs="b" start={{ rules: '', note: 'manual' }} onSubmit={onRules}
        offered={[{ accession: 'EH-0113', rules: 'bank 0 | M1', note: '' }]} /></section>
    </>)
    const slots = within(screen.getByRole('region', { name: 'slots' }))
    await user.click(slots.getByRole('button', { name: 'As in EH-0107' }))
    await user.type(slots.getByLabelText('Backplane'), ' 2')
    await user.click(slots.getByRole('button', { name: 'Save' }))
    expect(onSlots).toHaveBeenCalledWith({ layout: 'row A | 8-bit | 1 2', note: '' })
    const modules = within(screen.getByRole('region', { name: 'modules' }))
    await user.click(modules.getByRole('button', { name: 'As in EH-0113' }))
    await user.click(modules.getByRole('button', { name: 'Save' }))
    expect(onRules).toHaveBeenCalledWith({ rules: 'bank 0 | M1', note: 'manual' })
  })
})
