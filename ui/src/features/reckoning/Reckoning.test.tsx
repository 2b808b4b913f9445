// @vitest-environment jsdom
import { screen, within } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'

import type { FittedAssembly } from '../../api/assemblies'
import type { Verdict } from '../../api/reckoning'
import { show } from '../../testing/show'
import { Reckoning } from './Reckoning'
import type { Reckoning as Reckoned } from './useReckoning'

const line = (key: string, stage: string, more: Partial<Verdict> = {}): Verdict =>
  ({ key, label: key, value: `${key} value`, state: 'plain', caution: '', grave: false, why: [], stage, ...more })
const stages = [{ path: 'look-over', name: 'Look over', figures: ['evidence'] },
  { path: 'take-stock', name: 'Take stock', figures: ['ram'] }]
const reckoned = (verdicts: Verdict[]) => ({ machine: { verdicts, boards: [] }, error: null, board: () => undefined,
  setDraft: vi.fn(), onShow: vi.fn() }) as unknown as Reckoned
const pageOf = () => '/bench/1/take-stock'
const boards = [{ id: 4, title: 'Main board' }] as unknown as FittedAssembly[]

describe('the reckoning column', () => {
  const verdicts = [line('batteries', 'take-stock', { state: 'stop', caution: 'Fluid is caustic.', grave: true,
    why: [{ code: 'x', args: [], text: 'BT1 leaks', spot: { assembly: 4, line: 7 } }] }),
  line('heavy', 'look-over', { state: 'attention', caution: 'Lift it with somebody else.' }), line('ram', 'take-stock')]

  it('begins with the figures of the stage, and cautions only there where they belong', async () => {
    const reckoning = reckoned(verdicts)
    const user = show(<Reckoning assemblies={boards} reckoning={reckoning} stages={stages} stage={stages[1]} pageOf={pageOf} />)
    expect(screen.getAllByRole('heading', { level: 3 }).map((one) => one.textContent)).toEqual(['ramram value',
      'batteriesbatteries value'])
    expect(screen.getByText(/Fluid is caustic/)).toBeTruthy()
    expect(screen.queryByText(/Lift it/)).toBeNull()
    const folded = screen.getByText('Look over').closest('details') as HTMLElement
    expect(folded.hasAttribute('open')).toBe(false)
    expect(within(folded).getByText('1 wants attention')).toBeTruthy()
    await user.click(screen.getByText('Look over'))
    expect(await within(folded).findByText('heavy value')).toBeTruthy()
    expect(screen.queryByText(/Lift it/)).toBeNull()
    await user.click(screen.getByRole('button', { name: /batteries value/ }))
    expect(screen.getByRole('link', { name: 'Main board, line 7' }).getAttribute('href'))
      .toBe('/bench/1/take-stock?at=4.7')
  })

  it('folds a caution at its step unless it is one of mains, charge, tubes or cells', () => {
    show(<Reckoning assemblies={[]} reckoning={reckoned(verdicts)} stages={stages} stage={stages[0]} pageOf={pageOf} />)
    expect(screen.getByText(/Lift it/).closest('details')).toBeTruthy()
    expect(screen.queryByText(/Fluid is caustic/)).toBeNull()
  })

  it('is one line on a phone, which opens and closes', async () => {
    const phone = { matchMedia: () => ({ matches: true, addEventListener: vi.fn(), removeEventListener: vi.fn() }) }
    Object.assign(globalThis, phone)
    const user = show(<Reckoning assemblies={boards} reckoning={reckoned(verdicts)} stages={stages} stage={stages[1]} pageOf={pageOf} />)
    const summary = screen.getByText(/ram ram value · 2 want attention/)
    await user.click(summary)
    expect(screen.getByText('ram value')).toBeTruthy()
    await user.click(summary)
    expect(screen.queryByText('ram value')).toBeNull()
    Reflect.deleteProperty(globalThis, 'matchMedia')
  })

  it('shows all lines of a board that is in no machine', () => {
    show(<Reckoning assemblies={boards} reckoning={reckoned(verdicts)} pageOf={pageOf} />)
    expect(screen.getAllByRole('heading', { level: 3 })).toHaveLength(3)
    expect(screen.getByText(/Lift it/)).toBeTruthy()
    expect(document.querySelector('details summary')?.textContent).toContain('Caution')
  })
})
