// @vitest-environment jsdom
import { act, fireEvent, screen, waitFor } from '@testing-library/react'
import { createRef } from 'react'
import { Route, Routes, useLocation } from 'react-router'
import { describe, expect, it } from 'vitest'

import { serve } from '../testing/server'
import { signIn } from '../testing/people'
import { show } from '../testing/show'
import { QuickEntry } from './QuickEntry'

const note = { machine: { id: 7, accession: 'EH-0142', name: 'Meridian 2' }, note: 'hinge cracked', sure: true,
  destinations: [], noteInstead: '', happened: '', measured: null }
const nothing = { exact: null, machines: [], total: 0, assemblies: [], chips: [] }
const measured = { ...note, note: '', measured: { line: '+5 4.93', point: '+5', inWords: '4.93 V', verdict: 'pass', why: [],
  sure: true } }

/** Says a note, or what was measured; meanwhile something happens. */
async function say(understood: typeof note | typeof measured, meanwhile: () => void) {
  signIn('curator')
  const asked = serve(({ path }) => {
    if (path.startsWith('/api/find')) return { body: nothing }
    if (path === '/api/understand') return { body: understood }
    if (path.startsWith('/api/library')) return { body: [] }
    if (path.startsWith('/api/stock')) return { body: { parts: [], next: 0 } }
    if (path === '/api/machines/7') return { body: note.machine }
    meanwhile()
    return { body: path === '/api/quick-entry' ? { event: 5, revision: null } : { event: 5, point: '+5', judged: measured.measured } }
  })
  const box = createRef<HTMLInputElement>()
  const bench = <Routes><Route path="/bench/:machineId/*" element={<QuickEntry inputRef={box} />} /></Routes>
  show(bench, '/bench/7/take-stock')
  const line = screen.getByRole('searchbox', { name: 'Say or find' })
  act(() => { line.focus() })
  fireEvent.change(line, { target: { value: 'note hinge cracked' } })
  fireEvent.click(await screen.findByText(/Keep as a note|^Measured/))
  await waitFor(() => { expect(asked.some(({ path }) => /quick-entry|measurements/.test(path))).toBe(true) })
  return box
}

describe('the line where one says or finds', () => {
  it.each([note, measured])('is empty, and left, when what was said is kept', async (what) => {
    const box = await say(what, () => undefined)
    await waitFor(() => { expect(box.current?.value).toBe('') })
    expect(document.activeElement).not.toBe(box.current)
  })

  it.each([note, measured])('keeps what was typed while it was on its way, and the place to type', async (what) => {
    const box = await say(what, () => {
      fireEvent.change(screen.getByRole('searchbox'), { target: { value: 'U14 removed' } })
    })
    await new Promise((resolve) => { setTimeout(resolve, 50) })
    expect(box.current?.value).toBe('U14 removed')
    expect(document.activeElement).toBe(box.current)
  })

  it('does what a deed is called, waits for the answers on Enter, and offers it first the next time', async () => {
    signIn('curator')
    serve(({ path }) => {
      if (path.startsWith('/api/find')) return { body: nothing }
      if (path === '/api/understand') return { body: { ...note, machine: null, note: '' } }
      return { body: path === '/api/machines/7' ? note.machine : [] }
    })
    const box = createRef<HTMLInputElement>()
    show(<><QuickEntry inputRef={box} /><Where /></>, '/bench/7/identify')
    const line = screen.getByRole('searchbox')
    act(() => { line.focus() })
    fireEvent.change(line, { target: { value: 'add board' } })
    fireEvent.submit(screen.getByRole('search'))
    expect(await screen.findByText('/bench/7/take-stock?open=board')).toBeTruthy()
    act(() => { line.focus() })
    expect((await screen.findByRole('option', { name: /Add a board/ })).textContent).toContain('EH-0142 Meridian 2')
  })

  it('still does and goes without a connection, and says what it cannot', async () => {
    signIn('curator')
    serve(() => 'no connection')
    show(<><QuickEntry inputRef={createRef<HTMLInputElement>()} /><Where /></>, '/diary')
    const line = screen.getByRole('searchbox')
    act(() => { line.focus() })
    fireEvent.change(line, { target: { value: 'xyzzy' } })
    expect(await screen.findByText(/The server does not answer/)).toBeTruthy()
    fireEvent.change(line, { target: { value: 'unknowns' } })
    fireEvent.submit(screen.getByRole('search'))
    expect(await screen.findByText('/library/unknowns')).toBeTruthy()
  })
})

function Where() {
  const { pathname, search } = useLocation()
  return <p>{pathname}{search}</p>
}
