// @vitest-environment jsdom
import { QueryClientProvider } from '@tanstack/react-query'
import { renderHook, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { describe, expect, it } from 'vitest'

import { signIn } from '../testing/people'
import { serve } from '../testing/server'
import { queryClient } from './client'
import { sessionQuery, useSignIn } from './session'

const around = ({ children }: { children: ReactNode }) =>
  <QueryClientProvider client={queryClient}>{children}</QueryClientProvider>

/** Signs in once more on the page of somebody whose session ended. */
async function signInAgain(id: number) {
  signIn('curator', 1)
  queryClient.setQueryData(['dossier', 3], { provenance: 'given by Jory Penhallow' })
  serve(({ method }) => method === 'POST' ? { body: { account: { id, name: 'Somebody' } } } : { body: {} })
  const { result } = renderHook(() => useSignIn(), { wrapper: around })
  result.current.mutate({ login: 'somebody', password: 'estuary' })
  await waitFor(() => { expect(result.current.isSuccess).toBe(true) })
  return queryClient.getQueryData(['dossier', 3])
}

describe('signing in on a page where somebody was at work', () => {
  it('goes on with what is there for the same person', async () => {
    expect(await signInAgain(1)).toEqual({ provenance: 'given by Jory Penhallow' })
  })

  it('shows somebody else nothing of what the first could see', async () => {
    expect(await signInAgain(2)).toBeUndefined()
    expect(queryClient.getQueryData(sessionQuery.queryKey)?.account?.id).toBe(2)
  })
})
