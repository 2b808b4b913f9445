// @vitest-environment jsdom
import 'fake-indexeddb/auto'

import { screen } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { Schemas } from '../../../../api/client'
import type { Diagnosis } from '../../../../api/diagnosis'
import type { OnBench } from '../../stages'
import { signIn } from '../../../../testing/people'
import { serve } from '../../../../testing/server'
import { show } from '../../../../testing/show'
import { SetUp } from './SetUp'

const one = { id: 4, machineId: 3, accession: 'EH-0142', symptom: 'no picture', since: '2026-09-01', state: 'open', cause: '', note: '',
  version: 2, factors: [{ name: 'cable', kind: 'part', effort: 1 }, { name: 'supply', kind: 'part', effort: 9, danger: true, assemblyId: 8 }],
  trials: [{ on: [], runs: 1, failed: 1, day: '2026-09-01' }, { on: ['cable', 'supply'], runs: 3, failed: 0, day: '2026-09-02' },
    { on: [], runs: 2, failed: 1, day: '2026-09-03', note: 'warm' }],
  judged: { explanations: [{ factors: ['cable'], makes: 'ok', probability: 0.48 }, { factors: ['supply'], makes: 'ok', probability: 0.48 }],
    more: 0, refuted: [], confounded: [['cable', 'supply']], next: { on: ['cable'], why: 'of 2 explanations 1 says so' }, settled: false,
    notes: [], inShort: '2 explanations are left', results: ['fail', 'ok', 'sometimes'], left: [0, 3, 2],
    lastGood: { trial: 2, takeBack: [], putBack: ['cable', 'supply'] } } } as unknown as Diagnosis
const told: Schemas['Diagnoses'] = { stage: { state: 'needs attention', count: 1 }, diagnoses: [one],
  offered: [{ words: 'moved Disk card', on: '2026-08-30', kind: 'part' }],
  boards: [{ assemblyId: 8, title: 'Supply', pairing: 'bad pairing', machines: [
    { machineId: 3, accession: 'EH-0142', ok: 0, failed: 2, sometimes: 0, last: '2026-09-02' },
    { machineId: 5, accession: 'EH-0107', ok: 1, failed: 0, sometimes: 0, last: '2026-08-02' }] }] }

const memory = { layout: { machineId: 3, layout: '', syndromes: '', note: '', version: 0 }, again: [{ what: 'chip', is: ['U42'],
  days: ['2026-03-01', '2026-09-01'], why: 'U42 failed on 2 days: the chip, or its socket' }],
  offered: [{ accession: 'EH-0107', layout: 'low 0-FFFF U40-U47', syndromes: '', note: '' }],
  tests: [{ captureId: 12, on: '2026-09-01', failed: 2, problems: [{ line: 9, why: '0x90000 lies in no bank' }], suspects: [
    { designator: 'U42', kind: 'chip', share: 1, why: 'bit 2 fails', places: [{ assemblyId: 8, title: 'Memory', line: 4, marking: '4164-15',
      callout: { attachmentId: 31, n: 7 } }] }, { group: 'D2', kind: 'data-line', share: 0.5, why: 'bit 2', places: [] }] }] }

const page = (answer = { status: 200, body: one as unknown }) => {
  signIn('curator')
  const asked = serve(({ method, path }) => /slot-plan|configurations|operating|credentials|population/.test(path)
    ? { status: 404, body: { title: 'Not here', status: 404 } } : method !== 'GET' ? answer : { body: path.endsWith('/diagnoses') ? told
      : path.endsWith('/memory') ? memory : { assemblies: [], next: 0 } })
  const onBench = { machine: { id: 3, accession: 'EH-0142' }, assemblies: [] } as unknown as OnBench
  return { user: show(<SetUp {...onBench} />), asked }
}

describe('symptoms and trials', () => {
  it('tells what is left, what was not told apart, and the way back', async () => {
    page()
    expect(await screen.findByText('Always on together, and so not told apart: cable, supply')).toBeTruthy()
    expect(screen.getByText(/put in again cable, supply/)).toBeTruthy()
    expect(screen.getByText(/1 of 2 failed/)).toBeTruthy()
    expect(screen.getByText(/the two do not go together/)).toBeTruthy()
    expect(screen.getByRole('link', { name: 'EH-0107' }).getAttribute('href')).toBe('/bench/5/set-up')
  })

  it('writes down the trial that was proposed, with a change that came to mind', async () => {
    const { user, asked } = page()
    await user.click(await screen.findByRole('button', { name: 'It was tried so' }))
    expect(screen.getByRole<HTMLInputElement>('checkbox', { name: 'cable' }).checked).toBe(true)
    await user.click(screen.getByText('What was changed lately'))
    await user.click(screen.getByRole('button', { name: 'moved Disk card (2026-08-30)' }))
    await user.selectOptions(screen.getByLabelText('How it went'), 'now and then')
    await user.clear(screen.getByLabelText('Runs'))
    await user.type(screen.getByLabelText('Runs'), '5')
    await user.clear(screen.getByLabelText('Runs with the symptom'))
    await user.type(screen.getByLabelText('Runs with the symptom'), '2')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    const sent = asked.find(({ method }) => method === 'PUT')?.body as Diagnosis
    expect(sent.factors?.map(({ name }) => name)).toEqual(['cable', 'supply', 'moved Disk card'])
    expect(sent.trials?.at(-1)).toEqual({ on: ['cable', 'moved Disk card'], runs: 5, failed: 2, day: '', note: '' })
    expect(sent.version).toBe(2)
  })

  it('renames a change in all trials, and says what it was', async () => {
    const { user, asked } = page()
    await user.click(await screen.findByRole('button', { name: 'About cable' }))
    await user.clear(screen.getByLabelText('What is changed'))
    await user.type(screen.getByLabelText('What is changed'), 'new cable')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect((asked.find(({ method }) => method === 'PUT')?.body as Diagnosis).trials?.[1]?.on).toEqual(['new cable', 'supply'])
    await user.click(await screen.findByRole('button', { name: 'Edit, or say what it was: no picture' }))
    await user.selectOptions(screen.getByLabelText('How far it is'), 'the cause is found')
    await user.type(screen.getByLabelText('What it was'), 'a broken wire')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(asked.filter(({ method }) => method === 'PUT').at(-1)?.body).toMatchObject({ state: 'found', cause: 'a broken wire' })
  })

  it('leads a memory test to the chip on the picture, and takes over the layout of another of the model', async () => {
    const { user, asked } = page({ status: 200, body: memory.layout })
    expect((await screen.findByRole('link', { name: 'number 7 on the picture' })).getAttribute('href')).toBe('/bench/3/board-picture/31')
    expect(screen.getByRole('link', { name: 'Memory' }).getAttribute('href')).toBe('/bench/3/take-stock?at=8.4')
    expect(screen.getByText(/U42 failed on 2 days/)).toBeTruthy()
    expect(screen.getByText('line 9: 0x90000 lies in no bank')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Lay out its memory' }))
    await user.click(screen.getByRole('button', { name: 'As in EH-0107' }))
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(asked.find(({ method }) => method === 'PUT')?.body).toEqual({ layout: 'low 0-FFFF U40-U47', syndromes: '', note: '', version: 0 })
  })
})
