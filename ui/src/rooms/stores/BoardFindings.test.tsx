// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import { signIn } from '../../testing/people'
import { serve } from '../../testing/server'
import { show } from '../../testing/show'
import { BoardFindings } from './BoardFindings'

const story = { open: true, severity: 'repair', words: 'new 2026-11-28' }
const known = { assemblyId: 9, technical: 'repair', technicalWhy: 'Supply, C5 cracked',
  findings: [{ id: 0, key: 'a', kind: 'cracked', where: 'Supply, C5', name: 'Safety capacitors', line: 2, assemblyId: 9,
    observations: [], sources: [{ source: 'sheet' }], story, callout: null }],
  compared: [{ findingId: 0, key: 'a', kind: 'cracked', states: [], severities: [], story }],
  subsystems: [{ subsystem: 'boards', name: 'Boards', kinds: ['corroded'] },
    { subsystem: 'batteries', name: 'Batteries', kinds: ['leaking'] }],
  severities: [{ grade: 'watch', means: 'look again' }] }

describe('a board in store', () => {
  it('tells what is wrong with it, and takes what is found', async () => {
    signIn('curator')
    const asked = serve(() => ({ body: known }))
    const user = show(<BoardFindings assemblyId={9} mayWrite />)
    expect(await screen.findByText('known from the sheet')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Resolved: cracked, Supply, C5' }))
    await user.click(screen.getByRole('button', { name: 'Note a finding' }))
    await user.selectOptions(screen.getByLabelText('Subsystem'), 'Batteries')
    await user.type(screen.getByLabelText('Part'), 'BT1')
    await user.type(screen.getByLabelText(/^What(?! one sees)/), 'leaking')
    await user.click(screen.getByRole('button', { name: 'Save' }))
    const posts = () => asked.filter(({ method }) => method === 'POST')
    await waitFor(() => { expect(posts()).toHaveLength(2) })
    expect(posts().map(({ path }) => path)).toEqual(['/api/assemblies/9/findings', '/api/assemblies/9/findings'])
    expect(posts()[0]?.body).toEqual({ findingId: 0, key: 'a', severity: 'repair', gone: true })
    expect(posts()[1]?.body).toMatchObject({ subsystem: 'batteries', severity: 'watch',
      new: { kind: 'leaking', designator: 'BT1' } })
  })

  it('lets others only look', async () => {
    signIn('viewer')
    serve(() => ({ body: known }))
    show(<BoardFindings assemblyId={9} mayWrite={false} />)
    expect(await screen.findByText('known from the sheet')).toBeTruthy()
    expect(screen.queryByRole('button')).toBeNull()
  })
})
