// @vitest-environment jsdom
import 'fake-indexeddb/auto'

import { afterEach, beforeEach, describe, expect, it } from 'vitest'

import { dropOutbox, openOutbox, waitingChanges } from '../data/outbox'
import { serve } from '../testing/server'
import { api, ask } from './client'
import { KeptForLater } from './problem'

const path = { params: { path: { id: 3 } } }

describe('without a connection', () => {
  beforeEach(async () => {
    serve(() => 'no connection')
    await openOutbox(1, { onSent: () => undefined, onStranger: () => undefined, onUnreachable: () => undefined,
      send: () => Promise.reject(new TypeError('Failed to fetch')) })
  })
  afterEach(async () => { await dropOutbox() })

  it('a secret is not kept on the device, neither a new one nor another one', async () => {
    const refused = [
      await ask(api.POST('/api/machines/{id}/credentials', { ...path, body: { what: 'operator', secret: 'neap-tide' } }))
        .catch((error: unknown) => error),
      await ask(api.PUT('/api/credentials/{id}', { ...path, body: { what: 'operator', secret: 'neap-tide', version: 1 } }))
        .catch((error: unknown) => error),
      await ask(api.POST('/api/credentials/{id}/see', path)).catch((error: unknown) => error),
    ]
    for (const one of refused) {
      expect(one).toBeInstanceOf(Error)
      expect(one).not.toBeInstanceOf(KeptForLater)
    }
    expect(waitingChanges()).toEqual([])
  })

  it('how it is set up waits, as anything else that is written at the bench', async () => {
    const kept = await ask(api.POST('/api/machines/{id}/configurations', { ...path, body: { title: 'As found', cards: [],
      files: [] } })).catch((error: unknown) => error)
    expect(kept).toBeInstanceOf(KeptForLater)
    expect(waitingChanges().map(({ address }) => address)).toEqual(['/api/machines/3/configurations'])
  })

  it('what only asks neither waits nor is kept', async () => {
    await ask(api.POST('/api/machines/{id}/slot-plan/read', { ...path, body: { moves: [] } })).catch(() => undefined)
    await ask(api.POST('/api/settings/read', { body: { assemblyId: 8, settings: 'JP1 on' } })).catch(() => undefined)
    expect(waitingChanges()).toEqual([])
  })
})
