// @vitest-environment jsdom
import 'fake-indexeddb/auto'

import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { createMemoryRouter, Link, Outlet, RouterProvider } from 'react-router'
import { beforeEach, expect, it, vi } from 'vitest'

import { keepUnder, openDrafts } from '../data/drafts'
import { LeftBehind } from './LeftBehind'

const show = () => {
  const router = createMemoryRouter([{ path: '/', element: <><Link to="/judge">Judge</Link><Link to="/stock">Stock</Link>
    <LeftBehind /><Outlet /></>, children: [{ path: 'judge', element: <p /> },
    { path: 'stock', element: <p /> }] }], { initialEntries: ['/judge'] })
  return render(<RouterProvider router={router} />)
}

beforeEach(async () => {
  await openDrafts(1)
  // Drafts note the page of the browser, which the router of this test does not move.
  vi.stubGlobal('location', { ...location, pathname: '/judge' })
  document.title = 'EH-0142 - Judge - Frugal Heron'
})

it('says what was begun on the page that one left, and leads back', async () => {
  const user = userEvent.setup()
  show()
  keepUnder('finding of 9', { fields: { note: 'crust' } })
  await user.click(screen.getByRole('link', { name: 'Stock' }))
  expect((await screen.findByText(/is kept on this device/)).textContent).toContain('EH-0142 - Judge')
  await user.click(screen.getByRole('link', { name: 'EH-0142 - Judge' }))
  expect(screen.queryByText(/is kept on this device/)).toBeNull()
})

it('is silent about what was sent, and what was begun another time', async () => {
  const user = userEvent.setup()
  keepUnder('finding of 9', { fields: { note: 'crust' } })
  await new Promise((later) => setTimeout(later, 5))
  show()
  keepUnder('measurement of 9', { fields: { volts: '4.9' } })
  keepUnder('measurement of 9', undefined)
  await user.click(screen.getByRole('link', { name: 'Stock' }))
  expect(screen.queryByText(/is kept on this device/)).toBeNull()
})
