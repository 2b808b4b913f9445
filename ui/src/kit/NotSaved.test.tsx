// @vitest-environment jsdom
import { render, screen } from '@testing-library/react'
import { expect, it } from 'vitest'

import { KeptForLater, ProblemError } from '../api/problem'
import { NotSaved } from './NotSaved'
import { Unbroken } from './Unbroken'

it('says what was refused, and of what waits that it is kept', () => {
  const { container, rerender } = render(<NotSaved error={null} />)
  expect(container.textContent).toBe('')
  rerender(<NotSaved error={new KeptForLater(3)} />)
  expect(screen.getByRole('status').textContent).toContain('Kept on this device')
  rerender(<NotSaved error={new ProblemError(422, { title: 'No', status: 422, detail: 'It is ended already.' })} />)
  expect(screen.getByRole('alert').textContent).toBe('Not saved. It is ended already.')
})

it('breaks no date', () => {
  render(<p><Unbroken text="measured since 2026-03-30, and on 2026-04-01." /></p>)
  expect(screen.getByText('2026-03-30').tagName).toBe('SPAN')
  expect(screen.getByText('2026-04-01').parentElement?.textContent).toBe('measured since 2026-03-30, and on 2026-04-01.')
})
