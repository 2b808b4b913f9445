import { describe, expect, it } from 'vitest'

import { deedsFor } from './deeds'
import { offers } from './offers'

const curator = { mayWriteSheets: true, mayKeepTheRecord: true }
const viewer = { mayWriteSheets: false, mayKeepTheRecord: false }
const machine = { id: 7, title: 'EH-0142 Meridian 2' }
const names = (...given: Parameters<typeof deedsFor>) => deedsFor(...given).map(({ text }) => text)

describe('deeds by name', () => {
  it('are found by the starts of their words, or by other words for them', () => {
    expect(names('add a b', curator, machine)[0]).toBe('Add a board')
    expect(names('board add', curator, machine)[0]).toBe('Add a board')
    expect(names('disassembly', curator, machine)).toContain('Begin a log of taking apart')
    expect(names('xyzzy', curator, machine)).toEqual([])
    expect(deedsFor('survey', curator, machine)[0]?.to).toBe('/bench/7/judge#survey')
  })
  it('are those that one may do, with a machine in hand or without', () => {
    expect(names('add', viewer, machine)).toEqual([])
    expect(names('print', viewer, machine)).toEqual(['Print the dossier', 'Print the condition report'])
    expect(names('begin', curator, undefined)).toEqual([])
    expect(names('enter a machine', { ...curator, mayKeepTheRecord: false }, machine)).toEqual([])
  })
  it('stand before machines that have the word somewhere, behind a number, and after what was used last', () => {
    const found = { exact: null, machines: [], total: 2, assemblies: [], chips: [] }
    const deeds = deedsFor('stores', curator, machine)
    const titles = (used: { key: string; text: string; to: string }[] = []) =>
      offers('stores', found, undefined, { deeds, used }).map(({ title }) => title)
    expect(titles()).toEqual(['Do, or go to', 'In the collection'])
    expect(titles([{ key: 'x', text: 'Stores', to: '/stores' }])).toEqual(['Used last', 'Do, or go to',
      'In the collection'])
    expect(offers('41256', { ...found, total: 0 }, undefined, { types: [{ number: '41256', occurrences: 41 }] })[0]
      ?.items[0]).toMatchObject({ text: 'All 41 occurrences of 41256', to: '/library/occurrences?number=41256' })
  })
})
