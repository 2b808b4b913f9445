import { beforeEach, describe, expect, it, vi } from 'vitest'

import { signIn } from '../testing/people'
import { keepUnder, keptUnder } from './kept'

describe('what is typed and not sent yet', () => {
  beforeEach(() => {
    const kept = new Map<string, string>()
    vi.stubGlobal('localStorage', {
      getItem: (name: string) => kept.get(name) ?? null,
      setItem: (name: string, text: string) => { if (text.length > 100) throw new Error('full'); kept.set(name, text) },
      removeItem: (name: string) => { kept.delete(name) },
    })
  })
  it('is there again until it is forgotten', () => {
    expect(keptUnder('step 1')).toBeUndefined()
    keepUnder('step 1', { off: 'Lid', fasteners: [{ count: 4 }] })
    expect(keptUnder('step 1')).toEqual({ off: 'Lid', fasteners: [{ count: 4 }] })
    expect(keptUnder('step 2')).toBeUndefined()
    keepUnder('step 1', undefined)
    expect(keptUnder('step 1')).toBeUndefined()
  })
  it('harms nothing where the device keeps no more, or something else', () => {
    keepUnder('line', 'x'.repeat(200))
    expect(keptUnder('line')).toBeUndefined()
    localStorage.setItem('heron.typed.nobody.line', '{broken')
    expect(keptUnder('line')).toBeUndefined()
  })
  it('belongs to whoever typed it, and waits for them', () => {
    signIn('curator', 1)
    keepUnder('sheet of 9', { base: 3, text: 'of the giver' })
    signIn('viewer', 2)
    expect(keptUnder('sheet of 9')).toBeUndefined()
    keepUnder('sheet of 9', undefined)
    signIn('curator', 1)
    expect(keptUnder('sheet of 9')).toEqual({ base: 3, text: 'of the giver' })
  })
  it('of an earlier version goes to the first who may send it', () => {
    localStorage.setItem('heron.typed.step 1', '{"off":"Lid"}')
    signIn('viewer', 2)
    expect(keptUnder('step 1')).toBeUndefined()
    signIn('curator', 1)
    expect(keptUnder('step 1')).toEqual({ off: 'Lid' })
    expect(localStorage.getItem('heron.typed.step 1')).toBeNull()
    keepUnder('step 1', undefined)
    expect(keptUnder('step 1')).toBeUndefined()
  })
})
