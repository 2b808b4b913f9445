// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'

import type { Machine } from '../../../../api/machines'
import type { Agreement, Sighting, SignReading, Signs } from '../../../../api/signs'
import { signIn } from '../../../../testing/people'
import { type Asked, refusal, serve } from '../../../../testing/server'
import { show } from '../../../../testing/show'
import { SignsSeen } from './SignsSeen'

const machine = { id: 3, accession: 'EH-0142' } as unknown as Machine
const line = (more: Partial<Agreement> = {}) => ({ of: 0, line: 4, kind: 'lamps', shown: 'power', lit: '10',
  state: 'ready', meaning: 'waits', next: 'type a command', source: 'Handbook', expected: true, with: [], without: [], at: [], doubts: [],
  missing: [], extra: [], unlisted: [], differs: [], ...more }) as unknown as Agreement
const reading = (more: Partial<SignReading['reading']> = {}, answer: SignReading['answer'] = null) => ({ answer,
  of: ['Meridian 2'], subject: 'Meridian 2 lamps: 10', reading: { outcome: 'as expected', why: 'a sound machine shows it',
    matches: [line()], nearest: [], expected: [], words: [], ...more } }) as unknown as SignReading
const seen = (id: number, shown: string, read = reading()) => ({ id, version: 2, kind: 'lamps', shown, during: 'ready',
  assembly: '', on: '2026-04-14', by: 'Bram', note: 'at dusk', ...read }) as unknown as Sighting
const signs = (all: Sighting[]) => ({ lists: [{ of: 'Meridian 2', modelId: 1, knownId: 0, table: { row: ['power', 'fault'],
  radix: '', fields: '', signs: [line()] } }], states: ['self-test', 'ready'], seen: all, more: false,
  expected: [{ ...line(), holds: 'unknown', why: 'a card has no number' }] }) as unknown as Signs

const answering = (all: Sighting[], read: SignReading, keep: (asked: Asked) => ReturnType<typeof refusal> | { body: object }
  = () => ({ body: { ...seen(9, '10'), event: 5 } })) =>
  serve((asked) => {
    if (asked.path.endsWith('/read')) return { body: read }
    if (asked.method !== 'GET') return keep(asked)
    return { body: asked.path.endsWith('/assemblies') ? [{ id: 9, title: 'Disk card' }] : signs(all) }
  })

describe('what a machine shows', () => {
  beforeEach(() => { localStorage.clear() })

  it('is told with what it means, with what comes nearest, and with an answer somebody found', async () => {
    signIn('viewer')
    answering([seen(1, '10'),
      seen(2, '01', reading({ outcome: 'unmatched', why: 'no line agrees with it', matches: [],
        nearest: [line({ missing: ['power'], extra: ['fault'], differs: ['it is listed for self-test'] })] })),
      seen(3, '11', reading({ outcome: 'unmatched', matches: [], nearest: [line()] },
        { text: 'no keyboard', source: 'a letter', on: '2026-05-01' }))], reading())
    show(<SignsSeen machine={machine} mayWrite={false} />)
    const told = within(await screen.findByRole('list', { name: 'Seen so far' })).getAllByRole('listitem')
      .map((item) => item.textContent)
    expect(told[0]).toContain('as expected: a sound machine shows it')
    expect(told[0]).toContain('waits; next: type a command')
    expect(told.join()).toContain('missing: power; extra: fault; it is listed for self-test')
    expect(told.join()).toContain('answered: no keyboard a letter, 2026-05-01')
    expect(screen.getByRole('list', { name: 'What it should show' }).textContent).toContain('perhaps: a card has no number')
    expect(screen.getAllByRole('img', { name: 'power lit, fault dark' })).toHaveLength(1)
    expect(screen.queryByRole('button')).toBeNull()
  })

  it('is set lamp by lamp, read while it is told, and kept', async () => {
    signIn('curator')
    const asked = answering([], reading({ words: [{ of: 0, value: 39, hex: '27', octal: '47', splitOctal: '000.047',
      binary: '100111', fields: [{ name: 'bank', from: 7, to: 4, value: 2, hex: '2', octal: '2', splitOctal: '000.002',
        binary: '10' }] }] }))
    const user = show(<SignsSeen machine={machine} mayWrite />)
    await user.click(await screen.findByRole('button', { name: 'Note what it shows' }))
    await user.click(screen.getByRole('button', { name: 'power: dark' }))
    await user.click(screen.getByRole('button', { name: 'fault: dark' }))
    await user.click(screen.getByRole('button', { name: 'fault: lit' }))
    expect(screen.getByLabelText<HTMLInputElement>(/^What was seen/).value).toBe('1*')
    expect((await screen.findByText(/27 hex/)).textContent).toBe('27 hex · 47 octal · 000.047 split octal · 100111 binary')
    expect(screen.getByText(/bank 7-4: 2/)).toBeTruthy()
    await user.type(screen.getByLabelText(/^What the machine was doing/), 'ready')
    await user.selectOptions(screen.getByLabelText('Shown by'), 'Disk card')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    const kept = () => asked.filter(({ path }) => path.endsWith('/sightings'))
    await waitFor(() => { expect(kept()).toHaveLength(1) })
    expect(kept()[0]?.body).toEqual({ kind: 'lamps', shown: '1*', during: 'ready', assemblyId: 9, note: '', on: '' })
    await waitFor(() => { expect(screen.queryByLabelText(/^What was seen/)).toBeNull() })
  })

  it('keeps what cannot be taken, with the remedy, and strikes out the version that was read', async () => {
    signIn('curator')
    const asked = answering([seen(1, '10')], reading(), () => refusal(422, '"horn" is no beep'))
    const user = show(<SignsSeen machine={machine} mayWrite />)
    await user.click(await screen.findByRole('button', { name: 'Note what it shows' }))
    await user.selectOptions(screen.getByLabelText('What it shows'), 'beeps')
    await user.type(screen.getByLabelText(/^What was seen/), 'a horn{Enter}')
    expect(await screen.findByText(/is no beep/)).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>(/^What was seen/).value).toBe('a horn')
    await user.click(screen.getByRole('button', { name: 'Delete lamps 10' }))
    await waitFor(() => { expect(asked.map(({ path }) => path)).toContain('/api/sightings/1/void?version=2') })
  })
})
