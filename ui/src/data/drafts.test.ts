// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from 'vitest'

import { device } from './device'
import { allDrafts, draftsInTrouble, dropDrafts, flushDrafts, keepUnder, keptUnder, openDrafts } from './drafts'
import { takeOver } from './fromBefore'

describe('what is typed and not sent yet', () => {
  beforeEach(async () => { await openDrafts(1) })

  it('is there again after the page was closed, until it is forgotten', async () => {
    keepUnder('step 1', { off: 'Lid', fasteners: [{ count: 4 }] })
    await flushDrafts()
    await openDrafts(1)
    expect(keptUnder('step 1')).toEqual({ off: 'Lid', fasteners: [{ count: 4 }] })
    expect(keptUnder('step 2')).toBeUndefined()
    expect(allDrafts().map(({ name, page }) => [name, page])).toEqual([['step 1', '/']])
    keepUnder('step 1', undefined)
    await flushDrafts()
    await openDrafts(1)
    expect(keptUnder('step 1')).toBeUndefined()
  })

  it('belongs to whoever typed it, and waits for them', async () => {
    keepUnder('sheet of 9', { base: 3, text: 'of the giver' })
    await openDrafts(2)
    expect(keptUnder('sheet of 9')).toBeUndefined()
    keepUnder('sheet of 9', { base: 1, text: 'another' })
    await dropDrafts()
    await openDrafts(1)
    expect(keptUnder('sheet of 9')).toEqual({ base: 3, text: 'of the giver' })
  })

  it('is kept while it is on its way to the device when the page is closed', async () => {
    keepUnder('photo of step 1', 'on its way')
    const writing = flushDrafts()
    await Promise.resolve()
    dispatchEvent(new Event('pagehide'))
    expect(JSON.stringify({ ...localStorage })).toContain('on its way')
    await writing
    await flushDrafts()
    expect(Object.keys(localStorage), 'the device has it').toEqual([])
  })

  it('is kept of the last moments of a page that is closed, but not once it was sent', async () => {
    keepUnder('line', 'first')
    await flushDrafts()
    keepUnder('line', 'first, second')
    dispatchEvent(new Event('pagehide'))
    const last = { ...localStorage }
    expect(JSON.stringify(last)).toContain('first, second')
    await flushDrafts()
    expect(Object.keys(localStorage), 'the device has it').toEqual([])
    Object.assign(localStorage, last)
    localStorage.setItem('heron.last.2.line', JSON.stringify({ account: 2, name: 'line', value: 'theirs', at: '2999' }))
    const db = await device()
    await db.put('drafts', { account: 1, name: 'line', value: 'first', at: '2026-01-01', page: '/', title: '' })
    await openDrafts(1)
    expect(keptUnder('line')).toBe('first, second')
    keepUnder('line', undefined)
    await flushDrafts()
    await openDrafts(1)
    expect(keptUnder('line')).toBeUndefined()
  })

  it('stays in the page where the device has no room, which is said', async () => {
    const db = await device()
    vi.spyOn(db, 'transaction').mockImplementation(() => { throw new DOMException('full', 'QuotaExceededError') })
    keepUnder('line', 'x')
    await flushDrafts()
    expect(keptUnder('line')).toBe('x')
    expect(draftsInTrouble()).toBe(true)
    vi.restoreAllMocks()
    await flushDrafts()
    expect(draftsInTrouble()).toBe(false)
    await openDrafts(1)
    expect(keptUnder('line'), 'it is written once there is room again').toBe('x')
  })

  it('is taken over from an earlier version: one\'s own, and what had no owner, if one may send it', async () => {
    localStorage.setItem('heron.typed.2.step 4', '{"off":"Foot"}')
    localStorage.setItem('heron.typed.1.step 1', '{"off":"Lid"}')
    localStorage.setItem('heron.typed.step 2', '{"off":"Shell"}')
    localStorage.setItem('heron.sheet.9', '{"base":1,"text":"U1"}')
    localStorage.setItem('heron.bench', '9')
    takeOver(1, false)
    expect(allDrafts().map(({ name }) => name)).toEqual(['step 1'])
    takeOver(1, true)
    expect(allDrafts().map(({ name }) => name).sort()).toEqual(['sheet of 9', 'step 1', 'step 2'])
    expect(Object.keys(localStorage).sort()).toEqual(['heron.bench', 'heron.typed.2.step 4'])
    localStorage.setItem('heron.typed.1.broken', '{')
    expect(() => { takeOver(1, true) }).not.toThrow()
  })
})
