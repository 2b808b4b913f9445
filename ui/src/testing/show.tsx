import { QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { ReactNode } from 'react'
import { createMemoryRouter, RouterProvider } from 'react-router'

import { queryClient } from '../api/client'

/** Shows a part of the interface with what it needs around it, and returns somebody who uses it. */
export function show(part: ReactNode, at = '/') {
  render(
    <QueryClientProvider client={queryClient}>
      <RouterProvider router={createMemoryRouter([{ path: '*', element: part }], { initialEntries: [at] })} />
    </QueryClientProvider>,
  )
  return userEvent.setup()
}
