// @vitest-environment jsdom
import 'fake-indexeddb/auto'

import { screen } from '@testing-library/react'
import { Route, Routes } from 'react-router'
import { describe, expect, it } from 'vitest'

import type { Configuration } from '../../../../api/setup'
import { allDrafts } from '../../../../data/drafts'
import { signIn } from '../../../../testing/people'
import { refusal, serve } from '../../../../testing/server'
import { show } from '../../../../testing/show'
import ConfigurationPaper from './ConfigurationPaper'
import { CredentialForm } from './CredentialForm'
import { OneConfiguration } from './OneConfiguration'
import OperatingPaper from './OperatingPaper'
import SlotPaper from './SlotPaper'

const machine = { id: 3, accession: 'EH-0142', name: 'Meridian 2', place: 'Bench', version: 1 }
const one = { id: 4, machineId: 3, title: 'As found', kind: 'as found', on: '2026-03-01', version: 1, note: 'cell flat',
  firmware: 'boot = A', media: 'drive A = starter', files: [{ name: 'START', text: 'bell off' }],
  cards: [{ assemblyId: 8, title: 'Disk card', slot: '3', settings: 'JP2 1-2' }],
  meanings: [[{ line: 1, name: 'JP2', at: '1-2', state: 'known', means: ['irq 3'], why: '' }]] } as unknown as Configuration
const answers = (path: string) => {
  if (path.includes('/difference')) return { from: 'today', to: 'As found', changes: [{ of: 'setting', do: 'Disk card: set JP2 from 2-3 to 1-2',
    card: '', what: '', from: '', to: '', open: false, text: [] }] }
  if (path.endsWith('/configurations')) return { configurations: [one], cards: [], since: [], batteries: [], hasFirmware: true }
  if (path.endsWith('/operating-card')) return { card: { ...machine, machineId: 3, start: 'Key', stop: '', lamps: [] }, offered: [] }
  if (path.includes('/slot-plan')) return { backplane: { layout: '' }, rows: [{ chassis: '', name: '', kind: '', slots: [
    { id: '1', chain: 0, cards: [], filler: false }] }], cards: [], rails: [], undrawn: [], remarks: [], fillers: ['1'], ok: true, solvable: true,
  problems: [{ kind: 'order', cards: [], detail: 'the disk card stands before the modem' }], proposal: { moves: [], sets: [], notes: ['take out first: A'] } }
  return machine
}

const paper = (path: string) => {
  signIn('viewer')
  serve((asked) => ({ body: answers(asked.path) }))
  show(<Routes>
    <Route path="/bench/:machineId/operating-card" element={<OperatingPaper />} />
    <Route path="/bench/:machineId/slot-sheet" element={<SlotPaper />} />
    <Route path="/bench/:machineId/configuration/:configurationId" element={<ConfigurationPaper />} />
  </Routes>, path)
}

describe('papers of a setup', () => {
  it('lay a configuration beside the machine', async () => {
    paper('/bench/3/configuration/4')
    expect(await screen.findByText('As found, 2026-03-01')).toBeTruthy()
    expect(screen.getByText('How it is set up: EH-0142 Meridian 2')).toBeTruthy()
    for (const text of ['irq 3', 'boot = A', 'drive A = starter', 'bell off', 'cell flat']) expect(screen.getByText(text)).toBeTruthy()
  })
  it('list what leads to it, to tick off', async () => {
    paper('/bench/3/configuration/4?from=0')
    expect(await screen.findByText(/set JP2 from 2-3 to 1-2/)).toBeTruthy()
    expect(screen.queryByText('boot = A')).toBeNull()
  })
  it('say that a configuration is gone', async () => {
    paper('/bench/3/configuration/9')
    expect(await screen.findByText(/was deleted, or is of another/)).toBeTruthy()
  })
  it('show the slots with what is done and the usual caution', async () => {
    paper('/bench/3/slot-sheet')
    expect(await screen.findByText('the disk card stands before the modem')).toBeTruthy()
    expect(screen.getByText(/A filler in slot 1/)).toBeTruthy()
    expect(screen.getByText(/Power off and unplugged/)).toBeTruthy()
    expect(screen.getByText(/take out first: A/)).toBeTruthy()
  })
  it('print how it is operated', async () => {
    paper('/bench/3/operating-card')
    expect(await screen.findByText('Key')).toBeTruthy()
  })
})

describe('what is typed', () => {
  it('of a secret is kept on no device', async () => {
    signIn('curator')
    serve(() => ({ body: {} }))
    const sent: unknown[] = []
    const user = show(<CredentialForm keptAs="credential of 3" error={null} isPending={false} onCancel={() => undefined}
      onSubmit={(fields, secret) => { sent.push([fields, secret]) }} />)
    await user.type(screen.getByLabelText('What it is for'), 'operator')
    await user.type(screen.getByLabelText('What is typed'), 'neap-tide')
    await user.click(screen.getByLabelText('Technicians may look at it, too'))
    expect(JSON.stringify(allDrafts())).not.toContain('neap-tide')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(sent).toEqual([[{ what: 'operator', kind: 'sign-on', user: '', note: '', forTechnicians: true }, 'neap-tide']])
  })
  it('of a configuration stays while somebody else changed it', async () => {
    signIn('curator')
    const newer = { ...one, title: 'As found, once more', version: 2 }
    const asked = serve(({ method, path, body }) => method === 'PUT' ? (body as { version: number }).version === 1
      ? refusal(409, 'Somebody changed it.', { newer: { configuration: newer } }) : { body: newer }
      : { body: path.endsWith('/read') ? { meanings: [], problems: [] } : answers(path) })
    const user = show(<OneConfiguration configuration={one} all={[one]} today={[]} isNewest mayWrite />)
    await user.click(screen.getByRole('button', { name: 'Edit As found' }))
    await user.type(screen.getByLabelText('Note'), ', lid off')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(await screen.findByText(/once more/)).toBeTruthy()
    expect(screen.getByLabelText<HTMLTextAreaElement>('Note').value).toBe('cell flat, lid off')
    await user.click(screen.getByRole('button', { name: 'Go on with mine over theirs' }))
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(asked.filter(({ method }) => method === 'PUT').at(-1)?.body).toMatchObject({ version: 2, note: 'cell flat, lid off',
      files: one.files })
  })
})
