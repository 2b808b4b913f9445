// @vitest-environment jsdom
import { screen, within } from '@testing-library/react'
import { Route, Routes } from 'react-router'
import { describe, expect, it } from 'vitest'

import { signIn } from '../../../testing/people'
import { refusal, serve } from '../../../testing/server'
import { show } from '../../../testing/show'
import OneModel from './OneModel'

const fact = (attribute: string, state: string, more: object = {}) => ({ attribute, label: attribute, subject: '',
  state,
  now: null, next: '', by: [], ...more })
const model = { id: 2, maker: 'Tarn & Vole', model: 'Meridian 2', made: '1984/1987', source: 'price lists',
  variants: '2S',
  note: '', machines: 2, version: 3, madeFrom: '1984-01-01', madeTo: '1987-12-31', signs: 'x',
  shows: { row: [], radix: '', fields: '', signs: [{ line: 1, kind: 'code', shown: '41', lit: '', state: '',
    meaning: 'no keyboard', next: '', source: '', expected: false, with: [], without: [] }] },
  told: [fact('slots', 'disputed', { next: 'which is dated nearer', by: [{ id: 'a', value: '5', source: 'seen',
    on: '' },
    { id: 'b', value: '4', source: 'leaflet', on: '1984' }] }), fact('processor', 'settled', { now: { value: 'HX9040' },
    by: [{ id: 'c', value: 'HX9040', source: 'handbook', on: '' }] })],
  boards: [{ expected: { title: 'Main board', part: '4410-2', option: false, from: '' }, knownId: 7, name: 'Main board',
    difference: '', revisions: [{ revision: 'C', made: '1985', note: '' }], faults: [{ what: 'BT1 leaking', test: '' }],
    remarks: ['revisions B and C overlap'] }],
  fits: [{ expected: null, knownId: 9, name: 'Light pen', difference: 'without its switch', revisions: [], faults: [],
    remarks: [] }], measured: ['+5 = 4.9 .. 5.2 V'], others: [], more: true, procedures: [{ id: 1,
      title: 'To the board' }],
  built: [{ id: 4, accession: 'EH-0142', name: 'Meridian', serial: '', from: '1985-10-14', to: '1986-04-06',
    placed: 'within' }, { id: 5, accession: 'EH-0143', name: 'Second', serial: '', from: null, to: null,
    placed: 'unknown' }],
  roms: [{ sha256: 'abcdef0123456789', name: '', version: '2.1', bytes: 1, machines: 'EH-0142' }] }
const page = () => show(<Routes><Route path="/library/models/:id" element={<OneModel />} /></Routes>,
  '/library/models/2')

describe('the page of a model', () => {
  it('says what is told of it and by whom, what belongs in it, what it shows, and when its machines were built',
    async () => {
    signIn('viewer')
    serve(({ path }) => ({ body: path === '/api/models' || path.startsWith('/api/models?') ? [] : model }))
    page()
    const cells = (part: HTMLElement) => within(part).getAllByRole('row').slice(1).map((row) =>
      within(row).getAllByRole('cell').map((cell) => cell.textContent.trim()))
    expect(cells(await screen.findByRole('region', { name: 'What is told of it' }))).toEqual([
      ['slots', 'disputedwhich is dated nearer', '5: seen4: leaflet, 1984'], ['processor', 'HX9040', 'handbook']])
    expect(cells(screen.getByRole('region', { name: 'Boards and cards' }))).toEqual([
      ['Main board', '4410-2', 'C, 1985 revisions B and C overlap', 'BT1 leaking'],
      ['Light pen fits it, without its switch', '', '', '']])
    expect(cells(screen.getByRole('region', { name: 'What it shows' }))[0]?.slice(0, 3)).toEqual(['code 41', 'any time',
      'no keyboard'])
    const machines = screen.getByRole('region', { name: 'Machines' })
    expect(machines.textContent).toContain('built 1985-10-14 to 1986-04-06, while it was made')
    expect(machines.textContent).toContain('not dated yet')
    expect(machines.textContent).toContain('and more')
    expect(screen.getByRole('link', { name: 'abcdef012345' }).getAttribute('href'))
      .toBe('/library/roms/abcdef0123456789')
    expect(screen.queryByRole('button', { name: 'Edit' })).toBeNull()
  })

  it('lies beside one of its machines, or says why it cannot', async () => {
    signIn('curator')
    let answer: object = { body: { first: 'Tarn & Vole Meridian 2', second: 'EH-0142 Meridian', rows: [
      { attribute: 'memory', label: 'memory', subject: '', first: '256 KB', second: '', state: 'unknown',
        why: 'nobody has said it of EH-0142' }] } }
    serve(({ path }) => path.includes('/beside-machine/')
      ? answer as ReturnType<typeof refusal> : { body: path.includes('/api/models/2') ? model : [] })
    const user = page()
    await user.selectOptions(await screen.findByLabelText('A machine of it, or another model'), 'EH-0142 Meridian')
    expect(await screen.findByText('nobody has said it of EH-0142')).toBeTruthy()
    answer = refusal(404, 'There is no such machine.')
    await user.selectOptions(screen.getByLabelText('A machine of it, or another model'), 'EH-0143 Second')
    expect(await screen.findByText(/There is no such machine/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Edit' }))
    expect(screen.getByLabelText<HTMLTextAreaElement>(/^What it shows, a sign/).value).toBe('x')
  })
})
