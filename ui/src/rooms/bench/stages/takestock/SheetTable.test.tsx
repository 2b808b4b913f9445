// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, it, vi } from 'vitest'

import type { FittedAssembly } from '../../../../api/assemblies'
import type { BoardReckoning } from '../../../../features/reckoning/useReckoning'
import { refusal, serve } from '../../../../testing/server'
import { show } from '../../../../testing/show'
import { SheetTable } from './SheetTable'
import { SheetDraft } from './useSheetDraft'

const record = (line: number, parts: string, marking: string) =>
  ({ line, parts, marking, purpose: '', mount: '', new: '', findings: '', comment: '' }) as const
const reckoned = (text: string): BoardReckoning => ({
  text, totals: undefined, entries: [],
  lines: text.split('\n').map((_, i) => ({ line: i + 1, state: 'recognised', text: 'a gate' })),
  records: text.split('\n').map((line, i) => record(i + 1, line.split(' ')[0] ?? '', line.split(' ')[1] ?? '')),
}) as unknown as BoardReckoning

/** The server writes a record as a line; parts named Q9 it refuses. */
const writing = () => serve(({ body }) => {
  const { parts, marking } = body as { parts: string; marking: string }
  return parts === 'Q9' ? refusal(422, 'Q9 is no chip.')
    : { body: { text: [parts, marking].filter(Boolean).join(' ') } }
})

type Given = { start: string; speaksOf?: string; onText: (text: string) => void }

const drafted = (body: string, onText: (text: string) => void) => {
  const draft = new SheetDraft({ id: 7, revision: 1, body } as FittedAssembly)
  draft.subscribe(() => { onText(draft.state.text) })
  return draft
}

function Table({ start, speaksOf = start, onText }: Given) {
  const [draft] = useState(() => drafted(start, onText))
  return <SheetTable title="Main board" draft={draft} reckoned={reckoned(speaksOf)} spot={undefined} readOnly={false} />
}

describe('a sheet as a table', () => {
  it('writes a row as its line of the text on Enter, and leaves the others alone', async () => {
    const asked = writing()
    const onText = vi.fn()
    const user = show(<Table start={'U1 7400\nU2 7402'} onText={onText} />)
    const marking = screen.getByLabelText('Marking, line 2')
    await user.clear(marking)
    await user.type(marking, '74LS02{Enter}')
    await waitFor(() => { expect(onText).toHaveBeenLastCalledWith('U1 7400\nU2 74LS02') })
    expect(asked.map(({ body }) => (body as { marking: string }).marking)).toEqual(['74LS02'])
  })

  it('writes since when a part is new, by the keyboard alone, and says where that is no date', async () => {
    const asked = serve(({ body }) => (body as { new: string }).new === 'soon'
      ? refusal(422, 'There is no date in new:soon.') : { body: { text: 'BT1 NiCd new:2021' } })
    const onText = vi.fn()
    const user = show(<Table start="BT1 NiCd" onText={onText} />)
    screen.getByLabelText('Mount, line 1').focus()
    await user.tab()
    const since = screen.getByLabelText<HTMLInputElement>('New since, line 1')
    expect(document.activeElement).toBe(since)
    await user.keyboard('soon{Enter}')
    expect(await screen.findByText(/BT1 NiCd: There is no date in new:soon/)).toBeTruthy()
    expect(since.value).toBe('soon')
    await user.clear(since)
    await user.type(since, '2021{Enter}')
    await waitFor(() => { expect(onText).toHaveBeenLastCalledWith('BT1 NiCd new:2021') })
    expect(asked.map(({ body }) => (body as { new: string }).new)).toEqual(['soon', '2021'])
    expect(screen.queryByRole('alert')).toBeNull()
  })

  it('asks for a line once, when Enter and leaving the row both write it', async () => {
    const asked = writing()
    // The row is left in the very moment in which its line is written.
    const leave = () => { (document.activeElement as HTMLElement).blur() }
    const onText = vi.fn(() => { void Promise.resolve().then(leave) })
    const user = show(<Table start="U1 7400" onText={onText} />)
    await user.type(screen.getByLabelText('Comment, line 1'), 'odd{Enter}')
    await waitFor(() => { expect(onText).toHaveBeenCalled() })
    await waitFor(() => { expect(document.activeElement).toBe(document.body) })
    expect(asked).toHaveLength(1)
  })

  it('keeps what cannot be written, says why, and goes back on Escape', async () => {
    writing()
    const onText = vi.fn()
    const user = show(<Table start="U1 7400" onText={onText} />)
    const parts = screen.getByLabelText<HTMLInputElement>('Parts, line 1')
    await user.clear(parts)
    await user.type(parts, 'Q9{Enter}')
    expect((await screen.findByRole('alert')).textContent).toMatch(/Q9 7400: .*Q9 is no chip/)
    expect(parts.value).toBe('Q9')
    await user.type(parts, '{Escape}')
    expect(parts.value).toBe('U1')
    expect(screen.queryByRole('alert')).toBeNull()
    expect(onText).not.toHaveBeenCalled()
  })

  it('does not write over a line that is another by now', async () => {
    writing()
    const onText = vi.fn()
    const user = show(<Table start="U7 7400" speaksOf="U1 7400" onText={onText} />)
    await user.type(screen.getByLabelText('Comment, line 1'), 'odd{Enter}')
    expect((await screen.findByRole('alert')).textContent).toMatch(/changed meanwhile/)
    expect(onText).not.toHaveBeenCalled()
  })

  it('takes new lines one after the other, from the keyboard alone', async () => {
    writing()
    const onText = vi.fn()
    const user = show(<Table start="" speaksOf="" onText={onText} />)
    const fresh = () => screen.getByLabelText<HTMLInputElement>('Parts of a new line')
    fresh().focus()
    await user.keyboard('U1{Tab}7400{Enter}')
    expect(document.activeElement).toBe(fresh())
    await waitFor(() => { expect(onText).toHaveBeenLastCalledWith('U1 7400') })
    expect(fresh().value).toBe('')
    await user.keyboard('U2{Tab}7402{Enter}')
    await waitFor(() => { expect(onText).toHaveBeenLastCalledWith('U1 7400\nU2 7402') })
  })

  it('writes a choice at once, and says what stands only in the text', async () => {
    writing()
    const onText = vi.fn()
    const of = reckoned('U1 7400')
    of.lines = [{ line: 1, state: 'recognised', text: '' }, { line: 2, state: 'problem', text: '' }] as typeof of.lines
    const user = show(<SheetTable title="Main board" draft={drafted('U1 7400\n?? what', onText)}
      reckoned={{ ...of, text: 'U1 7400\n?? what' }} spot={undefined} readOnly={false} />)
    expect(screen.getByText(/1 line stands/)).toBeTruthy()
    await user.selectOptions(within(screen.getByRole('table')).getByLabelText('Mount, line 1'), 'socket')
    await waitFor(() => { expect(onText).toHaveBeenCalledWith('U1 7400\n?? what') })
  })
})
