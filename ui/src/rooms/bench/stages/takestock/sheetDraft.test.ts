// @vitest-environment jsdom
import { describe, expect, it } from 'vitest'

import type { Revision } from '../../../../api/assemblies'
import { KeptForLater, ProblemError } from '../../../../api/problem'
import { keepDraft, keptDraft, sheetIsSent } from '../../../../data/sheetDrafts'
import { type DraftAction, type DraftState, isChanged, nextDraft, startDraft } from './sheetDraft'

const kept = { revision: 3, body: 'U1 7400' }
const theirs: Revision = { assemblyId: 7, n: 4, body: 'U1 7404', by: 'Bram Sedge', at: '2026-01-01T00:00:00Z' }
const refused = new ProblemError(409, { title: 'Changed meanwhile', status: 409, detail: 'changed',
  newer: { sheet: theirs } })

function after(...actions: DraftAction[]): DraftState {
  return actions.reduce(nextDraft, startDraft(kept, undefined))
}

describe('a draft', () => {
  it('starts as what is kept, and is not changed', () => {
    const draft = startDraft(kept, undefined)
    expect(draft).toMatchObject({ base: 3, text: 'U1 7400' })
    expect(isChanged(draft)).toBe(false)
  })
  it('goes on from what this device kept, on the revision it was written on', () => {
    const draft = startDraft({ revision: 4, body: 'U1 7404' }, { base: 3, text: 'U1 mine' })
    expect(draft).toMatchObject({ base: 3, text: 'U1 mine' })
    expect(isChanged(draft)).toBe(true)
  })
  it('keeps what was typed while saving was under way', () => {
    const revision = { ...theirs, body: 'U1 mine' }
    const draft = after({ type: 'typed', text: 'U1 mine' }, { type: 'saving' }, { type: 'typed', text: 'U1 mine too' },
      { type: 'saved', revision })
    expect(draft).toMatchObject({ base: 4, kept: 'U1 mine', text: 'U1 mine too', saving: false })
    expect(isChanged(draft)).toBe(true)
  })
  it('keeps what was typed when the server refuses or does not answer', () => {
    const typed: DraftAction = { type: 'typed', text: 'U1 mine' }
    for (const error of [refused, new ProblemError(0, undefined)]) {
      expect(after(typed, { type: 'saving' }, { type: 'refused', error })).toMatchObject({ text: 'U1 mine', base: 3,
        error, saving: false })
    }
  })
  it('stands on the newer revision once merged with it, or takes it, only when told', () => {
    const met = after({ type: 'typed', text: 'U1 mine' }, { type: 'refused', error: refused })
    expect(met.newer).toEqual(theirs)
    expect(nextDraft(met, { type: 'merging', text: 'U1 both' })).toMatchObject({ base: 4, kept: 'U1 7404',
      text: 'U1 both', newer: undefined })
    expect(nextDraft(met, { type: 'take theirs' })).toMatchObject({ base: 4, text: 'U1 7404', newer: undefined })
  })
  it('follows a newer revision only while nothing was changed here', () => {
    const loaded: DraftAction = { type: 'loaded', n: 4, body: 'U1 7404' }
    expect(after(loaded)).toMatchObject({ base: 4, text: 'U1 7404' })
    expect(after({ type: 'typed', text: 'U1 mine' }, loaded)).toMatchObject({ base: 3, text: 'U1 mine' })
    expect(after({ type: 'loaded', n: 2, body: 'older' })).toMatchObject({ base: 3, text: 'U1 7400' })
  })
  it('has nothing to choose without a newer revision', () => {
    const draft = after({ type: 'typed', text: 'U1 mine' })
    expect(nextDraft(draft, { type: 'merging', text: 'U1 both' })).toEqual(draft)
    expect(nextDraft(draft, { type: 'take theirs' })).toEqual(draft)
  })
})

describe('a sheet that waits for a connection', () => {
  const offline = (text: string) => nextDraft(nextDraft(startDraft({ revision: 3, body: 'U1' }, undefined),
    { type: 'typed', text }), { type: 'refused', error: new KeptForLater(1) })

  it('is saved once it has arrived, and what was typed since stands on it', () => {
    const waiting = offline('U1, U2')
    expect(waiting.sent).toBe('U1, U2')
    expect(isChanged(nextDraft(waiting, { type: 'loaded', n: 4, body: 'U1, U2' }))).toBe(false)
    const later = nextDraft(nextDraft(waiting, { type: 'typed', text: 'U1, U2, U3' }),
      { type: 'loaded', n: 4, body: 'U1, U2' })
    expect(later).toMatchObject({ base: 4, kept: 'U1, U2', text: 'U1, U2, U3', sent: undefined })
    const theirs = nextDraft(waiting, { type: 'loaded', n: 4, body: 'somebody else' })
    expect(theirs, 'saving meets it').toMatchObject({ base: 3, text: 'U1, U2' })
  })

  it('is no draft any more where nobody has it open', () => {
    const sent = { address: '/api/assemblies/9/sheet', body: JSON.stringify({ base: 3, body: 'U1, U2' }) }
    keepDraft(9, { base: 3, text: 'U1, U2', sent: 'U1, U2' })
    sheetIsSent({ ...sent, address: '/api/assemblies/8/sheet' }, { n: 4 })
    expect(keptDraft(9)?.base).toBe(3)
    sheetIsSent(sent, { n: 4 })
    expect(keptDraft(9)).toBeUndefined()
    keepDraft(9, { base: 3, text: 'U1, U2, U3', sent: 'U1, U2' })
    sheetIsSent(sent, { n: 4 })
    expect(keptDraft(9)).toEqual({ base: 4, text: 'U1, U2, U3' })
    keepDraft(9, undefined)
  })
})
