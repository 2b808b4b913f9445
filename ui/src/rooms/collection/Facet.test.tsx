// @vitest-environment jsdom
import { screen } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, it } from 'vitest'

import { show } from '../../testing/show'
import { Facet } from './Facet'

const values = Array.from({ length: 8 }, (_, i) => ({ value: `Shed ${String(i + 1)}`, count: 1200 - i }))

/** A facet whose ticks narrow a list. */
function Places({ start = [], known = values }: { start?: string[]; known?: typeof values }) {
  const [chosen, setChosen] = useState(start)
  const tick = (value: string) => {
    setChosen((now) => now.includes(value) ? now.filter((one) => one !== value) : [...now, value])
  }
  return <Facet title="Place" values={known} chosen={chosen} none="nowhere" onTick={tick} />
}

const boxes = () => screen.getAllByRole<HTMLInputElement>('checkbox')

describe('a facet', () => {
  it('is ticked by the keyboard, and says how many machines each value leaves', async () => {
    const user = show(<Places />)
    expect(screen.getByText('1,200')).toBeTruthy()
    await user.tab()
    await user.keyboard(' ')
    expect(boxes()[0]?.checked).toBe(true)
    await user.keyboard(' ')
    expect(boxes()[0]?.checked).toBe(false)
  })

  it('shows a few values, and all when asked', async () => {
    const user = show(<Places />)
    expect(boxes()).toHaveLength(6)
    await user.click(screen.getByRole('button', { name: 'Show all 8' }))
    expect(boxes()).toHaveLength(8)
    await user.click(screen.getByRole('button', { name: 'Show fewer' }))
    expect(boxes()).toHaveLength(6)
  })

  it('keeps in sight what is ticked, also where nothing is left of it', () => {
    show(<Places start={['Shed 8', 'Lighthouse']} />)
    expect(screen.getByLabelText<HTMLInputElement>(/Shed 8/).checked).toBe(true)
    expect(screen.getByLabelText<HTMLInputElement>(/Lighthouse/).checked).toBe(true)
    expect(boxes()).toHaveLength(8)
  })

  it('calls machines without a value by a word, and is left out without values', () => {
    show(<><Places known={[{ value: '', count: 3 }]} /><Facet title="Maker" values={[]} chosen={[]} onTick={() =>
      undefined} /></>)
    expect(screen.getByLabelText(/nowhere/)).toBeTruthy()
    expect(screen.queryByText('Maker')).toBeNull()
  })
})
