import { describe, expect, it } from 'vitest'

import type { Schemas } from '../api/client'
import type { Found } from '../api/quickEntry'
import { offers } from './offers'

const nothing: Found = { exact: null, machines: [], total: 0, assemblies: [], chips: [] }
const machine = { id: 7, accession: 'EH-0142', name: 'Meridian 2' } as Schemas['Machine']
const listed = { id: 7, accession: 'EH-0142', name: 'Meridian 2', maker: 'Tarn & Vole', model: '',
  place: 'Loft' } as Schemas['ListedMachine']
const destination = { assemblyId: 3, title: 'Main board', base: 4, line: 15, text: 'U14        27128-25', replaces: '',
  leaves: '', blocked: '', does: '', reading: '27128 UV-erasable PROM' }
const understood = (more: Partial<Schemas['Understood']>): Schemas['Understood'] => ({ machine, note: '', noteInstead: '', happened: '', sure: true,
  destinations: [destination], measured: null, ...more })
const titles = (groups: ReturnType<typeof offers>) => groups.map(({ title }) => title)

describe('what a line can mean', () => {
  it('puts the machine whose number was given first', () => {
    const groups = offers('eh-0142', { ...nothing, exact: machine, machines: [listed], total: 1 }, undefined)
    expect(titles(groups)).toEqual(['By its number', 'In the collection'])
    expect(groups[0]?.items[0]).toMatchObject({ to: '/bench/7' })
  })
  it('puts a statement first only where the words say what they are', () => {
    const found = { ...nothing, machines: [listed], total: 12 }
    expect(titles(offers('u14 27128-25', found, understood({})))[0]).toBe('Say of EH-0142 Meridian 2')
    expect(titles(offers('hb2 valve', found, understood({ sure: false })))).toEqual(['In the collection',
      'Say of EH-0142 Meridian 2'])
    expect(offers('x', found, undefined)[0]?.items[0]?.text).toBe('Show 12 machines with these words')
  })
  it('finds what lies in the drawers of the stores, behind all else', () => {
    const groups = offers('27128', { ...nothing, machines: [listed], total: 1 }, undefined,
      { drawers: [{ id: 4, what: '27128-25 new', free: 3, place: 'Store, box 4' }, { id: 5, what: '27128', free: 0, place: '' }] })
    expect(titles(groups)).toEqual(['In the collection', 'In the stores'])
    expect(groups[1]?.items[0]).toMatchObject({ text: '27128-25 new', more: '3 free, Store, box 4',
      to: '/stores/parts?search=27128-25+new' })
    expect(groups[1]?.items[1]).toMatchObject({ more: '0 free' })
  })
  it('says where a line would go, what it replaces, and what it is taken for', () => {
    const [said] = offers('u14 27128-25', nothing,
      understood({ destinations: [{ ...destination, replaces: 'U14        @empty' }, { ...destination, assemblyId: 4, title: 'Card',
        blocked: 'U14 stands on line 1 with others' }] }))
    expect(said?.items[0]).toMatchObject({
      more: 'Main board, line 15, in place of U14 @empty. Taken for: 27128 UV-erasable PROM',
      machineId: 7, assemblyId: 3, base: 4, done: 'U14 27128-25 stands on Main board, line 15.',
    })
    expect(said?.items[1]).toMatchObject({ blocked: true, more: 'Card: U14 stands on line 1 with others' })
    expect(said?.items[0]).not.toHaveProperty('blocked')
  })
  it('offers a measurement before the sheet where it is sure, else behind it', () => {
    const measured = { line: 'BT1 2.1 V', point: 'BT1', inWords: '2.1 V', verdict: 'fail' as const,
      why: ['below the limit'], sure: true }
    const [said] = offers('bt1 2.1 v', nothing, understood({ measured }))
    expect(said?.items[0]).toEqual({ key: 'measured', text: 'BT1 2.1 V',
      more: 'Measured BT1, 2.1 V: fail. below the limit', machineId: 7, line: 'BT1 2.1 V' })
    expect(offers('bt1 2.1 v', nothing, understood({ measured: { ...measured, sure: false } }))[0]?.items[1])
      .toHaveProperty('line')
  })
  it('says what of a line stays where a part is taken out of a run', () => {
    const [said] = offers('u43 removed', nothing, understood({ destinations: [{ ...destination, text: 'U43        @empty',
      replaces: 'U40-U44    41256', leaves: 'U40-U42,U44 41256', does: 'U43 is taken out' }] }))
    expect(said?.items[0]?.more).toBe(
      'Main board, line 15, out of U40-U44 41256, which leaves U40-U42,U44 41256: U43 is taken out')
  })
  it('offers what happened to the whole machine, and a note where nothing else can be done', () => {
    const [said] = offers('runs', nothing, understood({ destinations: [], happened: 'tested today: it works' }))
    expect(said?.items).toEqual([{ key: 'happened', text: 'tested today: it works', more: 'Keep it of EH-0142',
      machineId: 7, assemblyId: 0, base: 0, done: 'Kept: tested today: it works.' }])
    const [unsure] = offers('u14 fizzled', nothing, understood({ noteInstead: 'U14 fizzled',
      destinations: [{ ...destination, text: '', blocked: 'no marking that is known' }] }))
    expect(unsure?.items.map(({ text }) => text)).toEqual(['U14 fizzled', 'Main board'])
    expect(unsure?.items[0]).toMatchObject({ said: 'note U14 fizzled', assemblyId: 0 })
  })
  it('keeps a note without a board', () => {
    const [said] = offers('note hinge', nothing, understood({ note: 'hinge', destinations: [] }))
    expect(said?.items).toEqual([{ key: 'note', text: 'hinge', more: 'Keep as a note', machineId: 7, assemblyId: 0,
      base: 0, done: 'Noted for EH-0142.' }])
  })
  it('leads to the very line of a chip, or to what lies in store', () => {
    const chip = { machineId: 7, accession: 'EH-0142', machine: 'Meridian 2', assemblyId: 3, assembly: 'Main board',
      line: 8, count: 2, marking: '27128-25 8534' }
    const groups = offers('27128', { ...nothing, chips: [chip, { ...chip, machineId: null, line: 9 }] }, undefined)
    expect(groups[0]?.items[0]).toMatchObject({ text: '2 x 27128-25 8534', to: '/bench/7/take-stock?at=3.8' })
    expect(groups[0]?.items[1]).toMatchObject({ to: '/stores/3?at=3.9', more: 'Main board, line 9, in no machine' })
  })
  it('says so when nothing is found', () => {
    expect(titles(offers('zzz', nothing, undefined))).toEqual(['Nothing found'])
  })
})
