// @vitest-environment jsdom
import { screen, within } from '@testing-library/react'
import { Route, Routes, useLocation } from 'react-router'
import { beforeEach, describe, expect, it } from 'vitest'

import type { Dossier } from '../../../api/dossier'
import type { Glance, GlanceUnit } from '../../../api/glance'
import type { Machine } from '../../../api/machines'
import { signIn } from '../../../testing/people'
import { serve } from '../../../testing/server'
import { show } from '../../../testing/show'
import { beInStage } from '../../../kit/lastOnBench'
import { AtAGlance } from './AtAGlance'

const machine = { id: 3, accession: 'EH-0142', name: 'Meridian 2' } as unknown as Machine
const dossier = { arrival: { lot: null }, chain: { links: [], problems: [], retracted: [] } } as unknown as Dossier
const unit = (assemblyId: number, title: string, more: Partial<GlanceUnit> = {}): GlanceUnit => ({ assemblyId, title,
  kind: 'card', part: '', known: '', knownId: 0, disputed: false, fit: 'factory', ram: '', rom: '', chips: 0,
  unidentified: 0, dates: null, findings: 0, worst: '', ...more })
const told: Glance = { sentence: 'Tarn & Vole Meridian 2, with 1 MB of memory.',
  layout: { boards: [1], bays: [{ slot: '1', kind: '8-bit', units: [2], coveredBy: 0 },
    { slot: '2', kind: '8-bit', units: [], coveredBy: 2 }, { slot: '3', kind: '', units: [], coveredBy: 0 }], others: [4],
    remarks: ['in which slot Relay card sits is not told'] },
  units: [unit(1, 'Main board', { ram: '512 KB', rom: '32 KB', dates: { from: '1985-W27', to: '1985-W40' }, findings: 2,
    worst: 'hazard', unidentified: 3, part: '4410-2', known: 'Board of the Meridian' }), unit(2, 'Video card',
    { fit: 'later', disputed: true }), unit(4, 'Supply')],
  figures: [{ key: 'ram', label: 'RAM', value: '1 MB' }],
  built: { spans: [{ from: '1985-10-14', to: '1986-04-06' }], madeFrom: '1984-06-01', madeTo: '1987-12-31',
    made: '1984-06/1987', placed: 'within' },
  urgent: [{ key: 'condition', label: 'Condition', value: 'hazard', state: 'stop', stage: 'judge' },
    { key: 'unidentified', label: 'Unknown', value: '3 chips', state: 'attention', stage: 'take-stock' }] }

const answering = (glance: Glance) => serve(({ path }) => {
  if (path.startsWith('/api/machines?')) return { body: { machines: [], total: 0, next: '' } }
  if (path.endsWith('/glance')) return { body: glance }
  if (path.includes('/attachments')) return { body: { attachments: [], next: 0 } }
  if (path.includes('/condition')) return { body: { technical: 'hazard', technicalWhy: 'leaking, BT1', surveys: [] } }
  if (path.endsWith('/treatment')) return { body: { jobs: [{ id: 1, title: 'Replace the battery', needs: ['NiMH 3.6V'],
    state: 'waiting for part' }, { id: 2, title: 'Clean it', state: 'done' }] } }
  return { body: { events: [1, 2, 3, 4, 5, 6].map((id) => ({ id, at: '2026-11-29T08:00:00Z', by: 'Bram',
    what: `did ${String(id)}`, mayUndo: [] })), next: 0 } }
})
const Where = () => <p>at {useLocation().pathname}</p>
const page = () => show(<Routes><Route path="/" element={<AtAGlance machine={machine} dossier={dossier} />} />
  <Route path="*" element={<Where />} /></Routes>)

describe('a machine at a glance', () => {
  beforeEach(() => { localStorage.clear() })

  it('says what it is, draws its cards as they sit, and leads on from each', async () => {
    signIn('viewer')
    answering(told)
    page()
    expect(await screen.findByText(told.sentence)).toBeTruthy()
    const slots = within(screen.getByRole('list', { name: 'Slots' })).getAllByRole('listitem')
      .map((item) => item.textContent)
    expect(slots).toEqual(['slot 1 · 8-bitVideo cardput in later two records say what it is',
      'slot 2 · 8-bitcovered by Video card', 'slot 3empty'])
    const board = within(screen.getByRole('list', { name: 'Boards' })).getByRole('link')
    expect(board.textContent).toContain('4410-2 · Board of the Meridian')
    expect(board.textContent).toContain('RAM 512 KB · ROM 32 KB1985-W27 to 1985-W40')
    expect((await screen.findByText(/Replace the battery: waits for NiMH 3.6V/)).textContent).not.toContain('Clean it')
    expect(board.textContent).toContain('3 unknown')
    expect(board.textContent).toContain('2 findings, hazard')
    expect(board.getAttribute('href')).toBe('/bench/3/take-stock?at=1.1')
    expect(screen.getByText('in which slot Relay card sits is not told.')).toBeTruthy()
    expect(screen.getByText('Built 1985-10-14 to 1986-04-06, while the model was made.')).toBeTruthy()
    expect(screen.getByRole('link', { name: 'Condition' }).getAttribute('href')).toBe('/bench/3/judge')
    expect(await screen.findByText(/No survey was made yet/)).toBeTruthy()
    expect(within(await screen.findByRole('region', { name: 'Lately' })).getAllByRole('listitem')).toHaveLength(5)
    expect(screen.getByRole('img', { name: 'There is no picture yet' })).toBeTruthy()
    expect(screen.queryByRole('button', { name: /^Back to/ })).toBeNull()
  })

  it('leads back to the stage one was in by one key', async () => {
    signIn('viewer')
    beInStage('judge')
    answering({ ...told, units: [], layout: { boards: [], bays: [], others: [], remarks: [] }, urgent: [],
      built: { spans: [], madeFrom: null, madeTo: null, made: '', placed: 'unknown' } })
    const user = page()
    expect(await screen.findByRole('button', { name: 'Back to Judge (b)' })).toBeTruthy()
    expect(screen.getByText(/Nothing tells yet when it was built/)).toBeTruthy()
    expect(screen.getByRole('link', { name: 'Take stock' })).toBeTruthy()
    await user.keyboard('b')
    expect(await screen.findByText('at /bench/3/judge')).toBeTruthy()
  })
})
