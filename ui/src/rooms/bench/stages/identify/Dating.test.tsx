// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { FittedAssembly } from '../../../../api/assemblies'
import type { Dated, DatedPart } from '../../../../api/identify'
import type { Machine } from '../../../../api/machines'
import { signIn } from '../../../../testing/people'
import { refusal, serve } from '../../../../testing/server'
import { show } from '../../../../testing/show'
import { Dating } from './Dating'

const machine = { id: 3, accession: 'EH-0142', maker: 'Tarn & Vole', model: 'Meridian 2' } as unknown as Machine
const part = (id: string, from: string, more: Partial<DatedPart> = {}) => ({ id, kind: 'date-code', from, to: from,
  fit: 'soldered', assembly: 'Main board', words: '74LS00', count: 1, verdict: '', spot: { assembly: 9, line: 4 },
  ...more }) as DatedPart
const dated = (parts: DatedPart[], result: Partial<Dated['result']> = {}, more: Partial<Dated> = {}) => ({ parts,
  result: { notBefore: null, notAfter: null, estimate: null, estimates: [], outliers: [], conflicts: [], basis: [],
    cluster: [], ...result }, assemblies: [], model: null, holdings: [], ...more }) as Dated
const given = (answer: Dated) => serve(() => ({ body: answer }))
const board = { id: 9, version: 5, kind: 'board', title: 'Main board', part: '4410-2', rev: 'C', serial: '', slot: '',
  purpose: '', fit: 'unknown' } as unknown as FittedAssembly

describe('when a machine was built', () => {
  it('says how to begin where nothing is dated', async () => {
    signIn('viewer')
    given(dated([]))
    show(<Dating machine={machine} assemblies={[]} />)
    const start = await screen.findByText(/Nothing is dated yet/)
    expect(within(start).getByRole('link', { name: 'Take stock' }).getAttribute('href')).toBe('/bench/3/take-stock')
  })

  it('is told with its reasons', async () => {
    signIn('viewer')
    given(dated([part('Main board, U1', '1985-07-29')], { notBefore: '1985-07-29', notAfter: '1986-06-30',
      estimates: [{ from: '1985-08-12', to: '1986-02-02' }], basis: ['One part is dated.', 'The plate says 1986.'] }))
    show(<Dating machine={machine} assemblies={[]} />)
    expect(await screen.findByText('1985-08-12 to 1986-02-02')).toBeTruthy()
    expect(screen.getByText('1985-07-29')).toBeTruthy()
    expect(screen.getByText('1986-06-30')).toBeTruthy()
    expect(screen.getByText(/One part is dated\.\s+The plate says 1986\./)).toBeTruthy()
    expect(screen.queryByRole('table')).toBeNull()
  })

  it('is told twice where a part can be original or added', async () => {
    signIn('viewer')
    given(dated([part('Main board, U1', '1985-05-13'), part('Main board, U9', '1987-01-05', { verdict: 'possibly-later' })],
      { estimates: [{ from: '1985-05-27', to: '1985-11-17' }, { from: '1987-01-19', to: '1987-07-05' }],
        outliers: [{ id: 'Main board, U9', verdict: 'possibly-later', weeks: 86, why: 'two parts are too few to tell' }] }))
    show(<Dating machine={machine} assemblies={[]} />)
    expect(await screen.findByText('1985-05-27 to 1985-11-17, or 1987-01-19 to 1987-07-05')).toBeTruthy()
    const outliers = screen.getByRole('table', { name: /not of the time of the others/ })
    expect(within(outliers).getByText('possibly-later')).toBeTruthy()
    expect(within(outliers).getByText('two parts are too few to tell')).toBeTruthy()
    expect(within(outliers).getByRole('link', { name: 'Main board, U9' })).toBeTruthy()
    expect(screen.getByRole('img', { name:
      'Dates from 1985 to 1987. Main board: 2 dates from 1985-05-13 on. Main board, U9 is possibly-later' })).toBeTruthy()
  })

  it('names what does not go together', async () => {
    signIn('viewer')
    given(dated([part('Main board, U1', '1985-07-29')], { conflicts: [{ ids: ['plate', 'Main board, U1'],
      why: 'the board was exchanged' }] }))
    show(<Dating machine={machine} assemblies={[]} />)
    expect(await screen.findByText(/the board was exchanged/i)).toBeTruthy()
    expect(screen.getByText('(plate, Main board, U1)')).toBeTruthy()
  })

  it('folds many parts of one board into one row', async () => {
    signIn('viewer')
    const late = [1, 2, 3].map((n) => part(`Memory card, U${String(n)}`, '1987-03-09', { assembly: 'Memory card' }))
    given(dated(late, { outliers: late.map(({ id }) => ({ id, verdict: 'later', weeks: 83, why: 'a card' })) }))
    show(<Dating machine={machine} assemblies={[]} />)
    const outliers = await screen.findByRole('table', { name: /not of the time of the others/ })
    expect(within(outliers).getAllByRole('row')).toHaveLength(2)
    expect(within(outliers).getByText('3 lines of its sheet')).toBeTruthy()
  })

  it('says why it cannot be told', async () => {
    signIn('viewer')
    serve(() => refusal(500, 'The dates cannot be read.'))
    show(<Dating machine={machine} assemblies={[]} />)
    expect(await screen.findByText(/The dates cannot be read/)).toBeTruthy()
  })
})

describe('what is original', () => {
  const one = { id: 9, title: 'Main board', reckoned: { originality: 'factory', why: 'not later than the machine' },
    own: 'unknown', counts: 'factory' } as Dated['assemblies'][number]

  it('is decided by somebody over what the dates say', async () => {
    signIn('curator')
    const asked = serve(({ method }) => method === 'GET' ? { body: dated([], {}, { assemblies: [one] }) }
      : { body: { ...board, fit: 'later', version: 6 } })
    const user = show(<Dating machine={machine} assemblies={[board]} />)
    await user.selectOptions(await screen.findByLabelText('Decided about Main board'), 'later')
    await waitFor(() => { expect(asked.find(({ method }) => method === 'PUT')).toBeTruthy() })
    expect(asked.find(({ method }) => method === 'PUT')).toMatchObject({ path: '/api/assemblies/9',
      body: { title: 'Main board', part: '4410-2', rev: 'C', fit: 'later', version: 5 } })
  })

  it('keeps what counted where somebody changed the board meanwhile', async () => {
    signIn('curator')
    serve(({ method }) => method === 'GET' ? { body: dated([], {}, { assemblies: [one] }) }
      : refusal(409, 'Somebody changed the board meanwhile.'))
    const user = show(<Dating machine={machine} assemblies={[board]} />)
    await user.selectOptions(await screen.findByLabelText('Decided about Main board'), 'modern')
    expect(await screen.findByText(/Somebody changed the board meanwhile/)).toBeTruthy()
    expect(screen.getByLabelText<HTMLSelectElement>('Decided about Main board').value).toBe('unknown')
  })

  it('is read by a viewer', async () => {
    signIn('viewer')
    given(dated([], {}, { assemblies: [{ ...one, own: 'later', counts: 'later' }] }))
    show(<Dating machine={machine} assemblies={[board]} />)
    const row = (await screen.findAllByRole('row')).find((r) => within(r).queryByText('Main board'))
    expect(within(row as HTMLElement).getAllByRole('cell').map((c) => c.textContent)).toEqual(['Main board',
      'factory: not later than the machine', 'later', 'later'])
    expect(screen.queryByRole('combobox')).toBeNull()
  })
})
