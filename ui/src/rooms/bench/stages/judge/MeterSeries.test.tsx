// @vitest-environment jsdom
import { fireEvent, screen, waitFor } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'

import { type Measurement, meterQuery } from '../../../../api/judge'
import type { Machine } from '../../../../api/machines'
import { queryClient } from '../../../../api/client'
import { refusal, serve } from '../../../../testing/server'
import { show } from '../../../../testing/show'
import { MeterSeries } from './MeterSeries'

const machine = { id: 3, accession: 'EH-0142' } as unknown as Machine
const series = (readings: number[], more: Partial<Measurement> = {}) => ({ id: 8, point: '+5', quantity: 'volts',
  unit: 'V', readings, version: 2, trouble: '', judged: { verdict: 'pass', inWords: '4.95 V', why: ['inside'],
    stats: { count: readings.length, average: 4.95, lowest: 4.93, highest: 4.97, spread: 0.04 } },
  ...more }) as unknown as Measurement
const noMeter = { name: '', address: '', trouble: '', points: [], faults: [] }
const withMeter = { ...noMeter, name: 'Bench meter', address: '127.0.0.1:5025' }

function Shown({ meter = noMeter, measured = [], running, onRunning = () => undefined }: { meter?: object;
  measured?: Measurement[]; running?: number; onRunning?: (id: number | undefined) => void }) {
  queryClient.setQueryData(meterQuery.queryKey, meter as never)
  return <MeterSeries machine={machine} measured={measured} running={running} onRunning={onRunning} />
}

describe('a series of readings', () => {
  it('begins with a point and what is measured there', async () => {
    const asked = serve(() => ({ body: { ...series([]), event: 4 } }))
    const began = vi.fn()
    const user = show(<Shown onRunning={began} />)
    expect(screen.getByText(/no meter is set up; readings are typed/)).toBeTruthy()
    expect(screen.getByRole('button', { name: /Begin a series/ }).hasAttribute('disabled')).toBe(true)
    await user.type(screen.getByLabelText('Point'), 'J2.3')
    await user.selectOptions(screen.getByLabelText('What'), 'volts from peak to peak')
    await user.click(screen.getByRole('button', { name: 'Begin a series of J2.3' }))
    await waitFor(() => { expect(began).toHaveBeenCalledWith(8) })
    expect(asked[0]).toMatchObject({ method: 'POST', path: '/api/machines/3/measurements',
      body: { point: 'J2.3', quantity: 'volts-pp' } })
  })

  it('says why it does not begin, and keeps the point', async () => {
    serve(() => refusal(422, 'Nothing is called so.'))
    const user = show(<Shown />)
    await user.type(screen.getByLabelText('Point'), '+5')
    await user.click(screen.getByRole('button', { name: /Begin a series/ }))
    expect(await screen.findByText(/Nothing is called so/)).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>('Point').value).toBe('+5')
  })

  it('takes a reading by hand, with a comma as well, and none that is no figure', async () => {
    const asked = serve(() => ({ body: series([4.93, 4.97]) }))
    const user = show(<Shown measured={[series([4.93])]} running={8} />)
    await user.type(screen.getByLabelText('A reading by hand, V'), 'much{Enter}')
    expect(asked.filter(({ method }) => method === 'POST')).toEqual([])
    await user.clear(screen.getByLabelText('A reading by hand, V'))
    await user.type(screen.getByLabelText('A reading by hand, V'), '4,97{Enter}')
    await waitFor(() => { expect(asked.some(({ method }) => method === 'POST')).toBe(true) })
    expect(asked.find(({ method }) => method === 'POST')).toMatchObject({ path: '/api/measurements/8/readings',
      body: { value: 4.97 } })
    await waitFor(() => {
      expect(screen.getByLabelText<HTMLInputElement>('A reading by hand, V').value).toBe('')
    })
  })

  it('shows what the readings amount to', () => {
    serve(() => ({ body: [] }))
    show(<Shown measured={[series([4.93, 4.97])]} running={8} />)
    const shown = screen.getByText('4.95 V').closest('p')
    expect(shown?.textContent).toBe('+5 4.95 V pass2 readings, spread 0.04 V')
    expect(screen.getByText('4.93 · 4.97')).toBeTruthy()
    expect(screen.getByText('inside')).toBeTruthy()
    expect(screen.queryByRole('button', { name: /Take a reading/ })).toBeNull()
  })

  it('takes the next reading of the meter by the key of a foot switch', async () => {
    const asked = serve(() => ({ body: series([4.93, 4.97]) }))
    show(<Shown meter={withMeter} measured={[series([4.93])]} running={8} />)
    expect(screen.getByText('Bench meter')).toBeTruthy()
    fireEvent.keyDown(document, { key: 'F9' })
    await waitFor(() => { expect(asked.some(({ path }) => path === '/api/measurements/8/take')).toBe(true) })
  })

  it('stops where the meter fails, keeps what was read and goes on', async () => {
    const asked = serve(() => ({ body: series([4.93]) }))
    const user = show(<Shown meter={withMeter} measured={[series([4.93], { trouble: 'The meter does not answer' })]}
      running={8} />)
    expect(screen.getByText(/The meter does not answer\. Look after/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Go on (F9)' }))
    await waitFor(() => { expect(asked.some(({ path }) => path === '/api/measurements/8/take')).toBe(true) })
  })

  it('gives the last reading back', async () => {
    const asked = serve(() => ({ body: series([]) }))
    const done = vi.fn()
    const user = show(<Shown measured={[series([4.93])]} running={8} onRunning={done} />)
    await user.click(screen.getByRole('button', { name: 'Take the last one out' }))
    await waitFor(() => { expect(asked.some(({ path }) => path === '/api/measurements/8/drop?version=2')).toBe(true) })
    await user.click(screen.getByRole('button', { name: 'Done' }))
    expect(done).toHaveBeenCalledWith(undefined)
  })
})
