// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { Condition, FindingView, Measurement } from '../../../../api/judge'
import { signIn } from '../../../../testing/people'
import { refusal, serve } from '../../../../testing/server'
import { show } from '../../../../testing/show'
import { Findings } from './Findings'

const story = (open: boolean) => ({ open, severity: 'watch', words: open ? 'since 2021-05' : 'gone since 2024-05' })
const leak = (more: Partial<FindingView> = {}) => ({ id: 7, key: `key of ${String(more.id ?? 7)}`, machineId: 3,
  sources: [{ source: 'sheet' }, { source: 'survey' }], kind: 'leaking', where: 'Main board BT1',
  assembly: 'Main board', assemblyId: 9, line: 3, name: 'Batteries', subsystem: 'batteries', version: 4, voided: false,
  observations: [{ note: 'crust' }, { note: '' }], story: story(true), callout: null, ...more }) as unknown as FindingView
const batteries = { subsystem: 'batteries', name: 'Batteries', kinds: ['leaking', 'crust', 'weak'], parts: [
  { assemblyId: 9, board: 'Main board', line: 3, place: 'BT1', words: 'NiCd' },
  { assemblyId: 9, board: 'Main board', line: 5, place: 'BT2', words: 'NiCd' }], cautions: [], grading: '', lookFor: '',
  more: 0 }
const condition = (findings: FindingView[]) => ({ findings, guide: [batteries], surveys: [{ id: 1, on: '2021-05-01' },
  { id: 2, on: '2022-05-02' }], severities: [{ grade: 'watch', means: 'look again' },
  { grade: 'hazard', means: 'hurts' }],
  compared: findings.map(({ id, key, kind, story: told }) => ({ findingId: id, key, kind, story: told,
    states: ['new', 'worse'], severities: ['watch', 'hazard'] })) }) as unknown as Condition
const measured = { id: 1, findingId: 7, on: '2025-01-02', point: 'BT1',
  judged: { inWords: '2.1 V', verdict: 'fail' } } as unknown as Measurement

const answering = (answer: object = {}) => serve(({ method, path }) => method === 'GET'
  ? { body: path.endsWith('/measurements') ? [measured] : [] } : { body: answer })

describe('findings over the surveys', () => {
  it('stand side by side, with what was measured for them', async () => {
    signIn('viewer')
    answering()
    const scratched = leak({ id: 8, kind: 'scratched', story: story(false) as never, assemblyId: undefined, where: '' })
    show(<Findings machineId={3} condition={condition([leak(), scratched])} mayWrite={false} />)
    expect(screen.getByText('1 open, 1 gone')).toBeTruthy()
    const [head, open, gone] = screen.getAllByRole('row')
    expect(within(head as HTMLElement).getAllByRole('columnheader').map((c) => c.textContent)).toEqual(['Finding',
      '2021-05-01', '2022-05-02', 'Today'])
    expect(within(open as HTMLElement).getByRole('link', { name: 'Main board BT1' })).toBeTruthy()
    expect(within(open as HTMLElement).getByText('Batteries: crust')).toBeTruthy()
    expect(await within(open as HTMLElement).findByText('2025-01-02 measured BT1 2.1 V: fail')).toBeTruthy()
    expect(within(open as HTMLElement).getByText('watch', { selector: '[data-grade]' })).toBeTruthy()
    expect(within(open as HTMLElement).getByText('known from the sheet, a survey')).toBeTruthy()
    expect(within(gone as HTMLElement).getByText(/no place/)).toBeTruthy()
    expect(within(gone as HTMLElement).queryByText(/measured/)).toBeNull()
    expect(screen.queryByRole('button')).toBeNull()
  })

  it('say so where there are none', () => {
    signIn('viewer')
    answering()
    show(<Findings machineId={3} condition={condition([])} mayWrite={false} />)
    expect(screen.getByText(/Nothing was found yet/)).toBeTruthy()
  })

  it('are told as gone, and back', async () => {
    signIn('curator')
    const asked = answering(condition([]))
    const user = show(<Findings machineId={3} condition={condition([leak(),
      leak({ id: 8, kind: 'weak', where: 'Main board BT2', story: story(false) as never })])} mayWrite />)
    await user.click(screen.getByRole('button', { name: 'Resolved: leaking, Main board BT1' }))
    await user.click(screen.getByRole('button', { name: 'Recurred: weak, Main board BT2' }))
    await waitFor(() => { expect(asked.filter(({ method }) => method === 'POST')).toHaveLength(2) })
    expect(asked.filter(({ method }) => method === 'POST').map(({ body }) => body)).toEqual([
      { findingId: 7, severity: 'watch', gone: true }, { findingId: 8, severity: 'watch', gone: false }])
  })

  it('that only a sheet knows are named by their key, and cannot be deleted', async () => {
    signIn('curator')
    const asked = answering(condition([]))
    const user = show(<Findings machineId={3} condition={condition([leak({ id: 0, key: 'abc' })])} mayWrite />)
    expect(screen.queryByRole('button', { name: /Delete/ })).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Resolved: leaking, Main board BT1' }))
    await waitFor(() => { expect(asked.find(({ method }) => method === 'POST')?.body).toEqual({ findingId: 0,
      key: 'abc', severity: 'watch', gone: true }) })
  })

  it('are deleted in the version that was read, or it is said why not', async () => {
    signIn('curator')
    const asked = serve(({ method }) => method === 'GET' ? { body: [] } : refusal(409, 'Somebody changed it meanwhile.'))
    const user = show(<Findings machineId={3} condition={condition([leak()])} mayWrite />)
    await user.click(screen.getByRole('button', { name: 'Delete leaking, Main board BT1' }))
    expect(await screen.findByText(/Somebody changed it meanwhile/)).toBeTruthy()
    expect(asked.find(({ method }) => method === 'POST')?.path).toBe('/api/findings/7/void?version=4')
  })

  it('are noted beside a survey, with the part by its designator', async () => {
    signIn('curator')
    const asked = answering(condition([]))
    const user = show(<Findings machineId={3} condition={condition([])} mayWrite />)
    await user.click(screen.getByRole('button', { name: 'Note a finding' }))
    await user.type(screen.getByLabelText(/^What(?! one sees)/), 'leaking')
    await user.selectOptions(screen.getByLabelText('How grave'), 'hazard: hurts')
    await user.selectOptions(screen.getByLabelText('On'), 'Main board BT2')
    await user.type(screen.getByLabelText('What one sees'), 'crust on the anode')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => { expect(asked.some(({ method }) => method === 'POST')).toBe(true) })
    expect(asked.find(({ method }) => method === 'POST')).toMatchObject({ path: '/api/machines/3/findings',
      body: { subsystem: 'batteries', severity: 'hazard', note: 'crust on the anode', findingId: 0,
        new: { kind: 'leaking', assemblyId: 9, designator: 'BT2' } } })
    await waitFor(() => { expect(screen.queryByRole('button', { name: 'Save' })).toBeNull() })
  })

  it('keep what was typed where the server refuses', async () => {
    signIn('curator')
    serve(({ method }) => method === 'GET' ? { body: [] } : refusal(422, 'Such a part is not there any more.'))
    const user = show(<Findings machineId={3} condition={condition([])} mayWrite />)
    await user.click(screen.getByRole('button', { name: 'Note a finding' }))
    await user.type(screen.getByLabelText(/^What(?! one sees)/), 'weak{Enter}')
    expect(await screen.findByText(/Such a part is not there any more/)).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>(/^What(?! one sees)/).value).toBe('weak')
  })
})
