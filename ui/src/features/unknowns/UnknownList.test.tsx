// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'

import type { QuestionView, Unknown } from '../../api/unknowns'
import { signIn } from '../../testing/people'
import { refusal, serve } from '../../testing/server'
import { show } from '../../testing/show'
import { AskAbout, UnknownList } from './UnknownList'

const place = (line: number) => ({ machineId: 3, accession: 'EH-0142', machine: 'Meridian', assemblyId: 9,
  assembly: 'Main board', line, designators: `U${String(line)}`, count: 1, kind: 'chip', marking: 'HX7200', doubtful: false,
  typeNumber: '', date: '1981-02-16', neighbours: '74LS245 27128' })
const question = (more: Partial<QuestionView> = {}): QuestionView => ({ id: 5, sort: 'chip', subject: 'HX7200',
  machineId: null, text: 'what does it do', asked: '', answer: '', source: '', answeredOn: null, version: 2,
  guesses: [], ...more })
const chip = (more: Partial<Unknown> = {}): Unknown => ({ sort: 'chip', subject: 'HX7200', nameable: true, parts: 6,
  machines: 2, places: [1, 2, 3, 4, 5, 6].map(place), question: null, ...more } as Unknown)

describe('what nobody knows yet', () => {
  it('shows where it is, a few places first, with what stands beside it', async () => {
    signIn('viewer')
    serve(() => ({ body: [] }))
    const user = show(<UnknownList open={[chip()]} onSettled={vi.fn()} />)
    expect(screen.getByText(', 6 parts on 2 machines', { exact: false })).toBeTruthy()
    expect(screen.getAllByText(/dated 1981-02-16, beside 74LS245, 27128/)).toHaveLength(4)
    await user.click(screen.getByRole('button', { name: '2 more places' }))
    expect(screen.getAllByRole('link')).toHaveLength(6)
    expect(screen.getAllByRole('link')[0]?.getAttribute('href')).toBe('/bench/3/take-stock?at=9.1')
    expect(screen.queryByRole('button'), 'a viewer looks').toBeNull()
  })

  it('makes a question of it with the first word, then notes a guess with its reason', async () => {
    signIn('curator')
    let asked: QuestionView | null = null
    const all = serve(({ method, path, body }) => {
      if (path === '/api/questions') asked = question()
      if (path.endsWith('/guesses')) asked = question({ guesses: [{ id: 1, by: '', at: '', ...(body as { text: string;
        reason: string }) }] })
      return { status: method === 'POST' ? 201 : 200, body: asked ?? {} }
    })
    const onSettled = vi.fn()
    const user = show(<UnknownList open={[chip()]} onSettled={onSettled} />)
    await user.click(screen.getByRole('button', { name: 'Guess what HX7200 is' }))
    await waitFor(() => { expect(all).toHaveLength(1) })
    expect(all[0]?.body).toEqual({ sort: 'chip', subject: 'HX7200' })
  })

  it('asks about a switch as about a chip, by where it is', async () => {
    signIn('curator')
    const all = serve(() => ({ status: 201, body: question({ sort: 'switch', subject: 'EH-0142 Main board SW9' }) }))
    const user = show(<UnknownList open={[chip({ sort: 'switch', subject: 'EH-0142 Main board SW9', nameable: false,
      parts: 1, machines: 1, places: [{ ...place(9), kind: 'switch', designators: 'SW9', marking: '?', date: null }] })]}
      onSettled={vi.fn()} />)
    expect(screen.getByText('switch', { exact: false, selector: 'span' }).textContent).toContain('1 part on 1 machine')
    await user.click(screen.getByRole('button', { name: 'Guess what EH-0142 Main board SW9 is' }))
    await waitFor(() => { expect(all).toHaveLength(1) })
    expect(all[0]?.body).toEqual({ sort: 'switch', subject: 'EH-0142 Main board SW9' })
  })

  it('keeps a guess that was refused, with the reason of the server', async () => {
    signIn('curator')
    const all = serve(() => refusal(422, 'Not acceptable as it is',
      { errors: [{ location: 'body.reason', message: 'Say why you think so.' }] }))
    const user = show(<UnknownList open={[chip({ question: question() })]} onSettled={vi.fn()} />)
    await user.click(screen.getByRole('button', { name: 'Guess what HX7200 is' }))
    await user.type(screen.getByLabelText(/^It could be/), 'a timer')
    await user.type(screen.getByLabelText(/^Because/), '?{Enter}')
    expect(await screen.findByText(/Say why you think so/)).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>(/^It could be/).value).toBe('a timer')
    expect(all[0]).toMatchObject({ path: '/api/questions/5/guesses', body: { text: 'a timer', reason: '?' } })
  })

  it('says who is asked, from the version that was read', async () => {
    signIn('curator')
    const all = serve(() => ({ body: question({ asked: 'the harbour list', version: 3 }) }))
    const user = show(<UnknownList open={[chip({ question: question() })]} onSettled={vi.fn()} />)
    await user.click(screen.getByRole('button', { name: 'Say who is asked about HX7200' }))
    await user.type(screen.getByLabelText(/^Who is asked/), 'the harbour list{Enter}')
    await waitFor(() => { expect(screen.queryByLabelText(/^Who is asked/)).toBeNull() })
    expect(all[0]).toMatchObject({ method: 'PUT', path: '/api/questions/5',
      body: { version: 2, text: 'what does it do', asked: 'the harbour list' } })
  })

  it('settles what cannot be a type by words and a source, and tells of it', async () => {
    signIn('curator')
    const all = serve(() => ({ body: { question: question(), recognised: 0, machines: 0 } }))
    const onSettled = vi.fn()
    const plug = chip({ sort: 'connector', subject: 'the round plug', nameable: false, parts: 0, places: [],
      question: question({ sort: 'connector', subject: 'the round plug' }) })
    const user = show(<UnknownList open={[plug]} onSettled={onSettled} />)
    await user.click(screen.getByRole('button', { name: 'Answer what the round plug is' }))
    await user.type(screen.getByLabelText(/^It is/), 'for the lamp')
    await user.type(screen.getByLabelText(/^Where the answer comes from/), 'the wiring book{Enter}')
    await waitFor(() => { expect(onSettled).toHaveBeenCalledWith('the round plug is settled.') })
    expect(all[0]).toMatchObject({ path: '/api/questions/5/answer',
      body: { version: 2, answer: 'for the lamp', source: 'the wiring book' } })
  })

  it('shows what was guessed, and by whom', () => {
    signIn('viewer')
    serve(() => ({ body: [] }))
    show(<UnknownList open={[chip({ question: question({ asked: 'the list',
      guesses: [{ id: 1, text: 'a timer', reason: 'it ticks', by: 'Bram Sedge', at: '' }] }) })]} onSettled={vi.fn()} />)
    const item = screen.getAllByRole('listitem').find((li) => within(li).queryByText('a timer'))
    expect(item?.textContent).toMatch(/because it ticks/)
    expect(screen.getByText('Asked: the list')).toBeTruthy()
  })

  it('is asked about from the bench, by the machine it is on', async () => {
    signIn('curator')
    const all = serve(() => ({ status: 201, body: question() }))
    const onDone = vi.fn()
    const user = show(<AskAbout machineId={3} onDone={onDone} />)
    await user.selectOptions(screen.getByLabelText(/^What sort of thing/), 'switch')
    await user.type(screen.getByLabelText(/^What it is called/), 'SW2, behind the fan{Enter}')
    await waitFor(() => { expect(onDone).toHaveBeenCalled() })
    expect(all[0]?.body).toEqual({ sort: 'switch', subject: 'SW2, behind the fan', text: '', asked: '', machineId: 3 })
  })
})
