// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { Capture, ConsoleSaid } from '../../../../api/console'
import type { Machine } from '../../../../api/machines'
import { signIn } from '../../../../testing/people'
import { serve } from '../../../../testing/server'
import { show } from '../../../../testing/show'
import { ConsolePart } from './ConsolePart'

const machine = { id: 3, accession: 'EH-0142', name: 'Meridian 2' } as Machine
const said: ConsoleSaid = { outcome: 'prompts', why: 'it waits behind ">"', next: '', bells: 0, prompt: '>', doubts: [],
  lines: [{ number: 1, text: 'MONITOR V2.3' }, { number: 2, text: 'ADDR 2000 EXP 00 ACT 10' }, { number: 3, text: '>' }],
  claims: [{ line: 1, attribute: 'firmware', subject: '', value: '2.3', source: 'firmware', why: 'it tells it', doubt: '' },
    { line: 3, attribute: 'serial', subject: '', value: '7', source: 'firmware', why: 'x', doubt: 'of a part' }],
  failures: [{ line: 2, address: '2000', expected: '00', actual: '10', radix: 0, bits: null }],
  troubles: [{ line: 2, text: 'ADDR 2000 EXP 00 ACT 10' }], clock: null }
const capture: Capture = { id: 8, machineId: 3, how: 'heard', bytes: 40, line: '9600 8N1', during: 'self-test', note: '',
  on: '2026-11-30', since: '', until: '', ended: 'stopped', by: 'Bram', version: 2, reading: said, linesLeft: 0,
  stated: [{ line: 3, statementId: 4, attribute: 'serial', subject: '' }] }
const port = { address: '127.0.0.1:7073', trouble: '', listening: 0, machineId: 0, profiles: [], profile: '' }

const page = (role: 'curator' | 'viewer', told: object) => {
  signIn(role)
  const asked = serve(({ method, path }) => path.endsWith('/console') ? { body: { port, captures: [capture], more: false,
    ...told } } : path.endsWith('/signs/read') ? { body: { reading: { outcome: 'no list' }, of: [], answer: null } }
    : path.endsWith('/console/read') ? { body: said }
      : method === 'POST' ? { status: 201, body: {} } : { body: {} })
  return { asked, user: show(<ConsolePart machine={machine} mayWrite={role === 'curator'} />) }
}
const posted = (asked: { method: string; path: string; body: unknown }[], behind: string) =>
  asked.filter(({ method, path }) => method === 'POST' && path.endsWith(behind)).map(({ body }) => body)

describe('the console of a machine', () => {
  it('marks lines that complain, says what is not known of bits, and takes a claim once', async () => {
    const { asked, user } = page('curator', {})
    const lines = within(await screen.findByRole('list', { name: 'What it said on 2026-11-30' })).getAllByRole('listitem')
    expect(lines.map((line) => line.textContent)).toEqual(['says of itself:MONITOR V2.3',
      'complains:ADDR 2000 EXP 00 ACT 10', 'says of itself:>'])
    expect(screen.getByText(/which bits is not told/)).toBeTruthy()
    expect(screen.getAllByRole('button', { name: /^Take as statement/ })).toHaveLength(1)
    expect(screen.getByText('taken as a statement')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Take as statement: firmware 2.3' }))
    await waitFor(() => { expect(posted(asked, '/statements')).toEqual([{ line: 1, attribute: 'firmware' }]) })
  })

  it('shows what comes while somebody listens, and sends a secret as one', async () => {
    const { asked, user } = page('curator', { port: { ...port, listening: 8, machineId: 3 } })
    expect((await screen.findByText(/40 bytes came/)).textContent).toContain('Listening at 9600 8N1')
    expect(screen.queryByRole('button', { name: 'Listen' })).toBeNull()
    await user.click(screen.getByRole('checkbox', { name: /A secret/ }))
    await user.type(screen.getByRole('textbox', { name: /Type on its console/ }), 'harbour{Enter}')
    await waitFor(() => { expect(posted(asked, '/typed')).toEqual([{ typed: 'harbour', secret: true }]) })
    await user.click(screen.getByRole('button', { name: 'Stop listening' }))
    await waitFor(() => { expect(posted(asked, '/stop')).toHaveLength(1) })
  })

  it('reads a text while it is pasted, and says where the port is in use', async () => {
    const { user } = page('curator', { port: { ...port, listening: 9, machineId: 7 } })
    expect((await screen.findByRole('link', { name: 'another machine' })).getAttribute('href'))
      .toBe('/bench/7/power-up#console')
    await user.click(screen.getByRole('button', { name: 'Paste a text' }))
    await user.type(screen.getByRole('textbox', { name: /What stands there/ }), 'MONITOR V2.3')
    expect((await screen.findByText(/^It says:/)).textContent).toBe('It says: firmware 2.3; perhaps serial 7.')
  })

  it('lets a viewer read and change nothing', async () => {
    page('viewer', {})
    await screen.findByText(/Memory failed at/)
    expect(screen.queryByRole('button', { name: /Listen|Paste|Delete|Take/ })).toBeNull()
  })
})
