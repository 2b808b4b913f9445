import 'fake-indexeddb/auto'

import { afterEach, vi } from 'vitest'

import { respond } from './server'

/** Node's own Request knows no page that an address is relative to. */
class RequestOfAPage extends Request {
  constructor(input: RequestInfo | URL, init?: RequestInit) {
    super(typeof input === 'string' ? new URL(input, 'http://heron.test') : input, init)
  }
}

// Tests without a document need none of this.
if (typeof document !== 'undefined') {
  // Before the client is made, which keeps what it finds.
  vi.stubGlobal('Request', RequestOfAPage)
  vi.stubGlobal('fetch', respond)
  // What lists ask a browser for, and this document lacks.
  vi.stubGlobal('CSS', { escape: (text: string) => text.replace(/[^\w-]/g, (sign) => `\\${sign}`) })
  const { cleanup, configure } = await import('@testing-library/react')
  // What comes late on a busy machine is no failure.
  configure({ asyncUtilTimeout: 15_000 })
  const { queryClient } = await import('../api/client')
  const { dropDrafts } = await import('../data/drafts')
  const { closeOutbox, dropOutbox } = await import('../data/outbox')
  const { reached } = await import('../data/connection')
  afterEach(async () => {
    cleanup()
    reached()
    await dropDrafts()
    await dropOutbox()
    closeOutbox()
    queryClient.clear()
    localStorage.clear()
  })
}
