import './fonts'

import { QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter, RouterProvider } from 'react-router'

import { queryClient } from './api/client'
import { routes } from './app/routes'
import { tryWith, watchNetwork } from './data/connection'
import { GlobalStyle } from './GlobalStyle'
import { Boundary } from './kit/Boundary'

tryWith(async () => { if (!(await fetch('/api/session', { cache: 'no-store' })).ok) throw new Error('not yet') })
watchNetwork()
// Browsers have one only where the connection is safe, or on this very machine.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  void navigator.serviceWorker.register('/sw.js').catch(() => undefined)

const root = document.getElementById('root')
if (!root) throw new Error('index.html has no #root')

createRoot(root).render(
  <StrictMode>
    <GlobalStyle />
    <QueryClientProvider client={queryClient}>
      <Boundary of="The application"><RouterProvider router={createBrowserRouter(routes)} /></Boundary>
    </QueryClientProvider>
  </StrictMode>,
)
