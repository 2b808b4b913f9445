import './fonts'

import { QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter } from 'react-router'

import { queryClient } from './api/client'
import { App } from './App'
import { GlobalStyle } from './GlobalStyle'
import { Boundary } from './kit/Boundary'

const root = document.getElementById('root')
if (!root) throw new Error('index.html has no #root')

createRoot(root).render(
  <StrictMode>
    <GlobalStyle />
    <QueryClientProvider client={queryClient}>
      <BrowserRouter>
        <Boundary of="The application"><App /></Boundary>
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>,
)
