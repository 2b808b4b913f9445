// @vitest-environment jsdom
import 'fake-indexeddb/auto'

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { device, type Waiting } from './device'
import { dropOutbox, dropWaiting, keepForLater, openOutbox, sendWaiting, tryAgain, waitingChanges } from './outbox'
import { standInFor, withGiven } from './standIns'

let made = 0
const change = (address: string, body: object, key = `key ${address} ${String(++made)}`) => ({ method: 'PUT', address,
  body: JSON.stringify(body), type: 'application/json', key, at: '2026-11-29T10:00:00Z', page: '/bench/9/judge',
  title: 'EH-0142 - Judge' })
const answer = (status: number, body: object = {}) => new Response(JSON.stringify(body), { status })
const bodies = (sent: Waiting[]) => sent.map(({ address, body }) => [address, JSON.parse(String(body))] as unknown)

describe('what waits for a connection', () => {
  let sent: Waiting[]
  let answers: (Response | 'no connection')[]
  const told = { onSent: vi.fn(), onStranger: vi.fn(), onUnreachable: vi.fn() }
  const open = (account: number) => openOutbox(account, { ...told, send: (waiting) => {
    sent.push(waiting)
    const next = answers.shift() ?? answer(200)
    return next === 'no connection' ? Promise.reject(new TypeError('Failed to fetch')) : Promise.resolve(next)
  } })
  beforeEach(async () => { sent = []; answers = []; vi.clearAllMocks(); await open(1) })
  afterEach(async () => {
    await dropOutbox()
    await (await device()).clear('outbox')
  })

  it('is sent in the order in which it was done, with the keys it had, until there is no connection again', async () => {
    for (const name of ['a', 'b', 'c']) await keepForLater(change(`/api/questions/${name}`, { text: name }))
    answers = [answer(200), 'no connection']
    await sendWaiting()
    expect(sent.map(({ address }) => address)).toEqual(['/api/questions/a', '/api/questions/b'])
    expect(told.onUnreachable).toHaveBeenCalledOnce()
    expect(waitingChanges().map(({ address }) => address)).toEqual(['/api/questions/b', '/api/questions/c'])
    await sendWaiting()
    expect(sent.map(({ address }) => address).slice(2)).toEqual(['/api/questions/b', '/api/questions/c'])
    expect(sent[2]?.key).toBe(sent[1]?.key)
    expect(waitingChanges()).toEqual([])
    expect(told.onSent).toHaveBeenCalledTimes(3)
  })

  it('keeps once what is asked for twice, at once or later', async () => {
    const once = change('/api/questions/9', { text: 'a' })
    const [first, second] = await Promise.all([keepForLater(once), keepForLater(once)])
    expect([second, await keepForLater(once)]).toEqual([first, first])
    expect(waitingChanges()).toHaveLength(1)
  })

  it('counts once what the device already tells while it is being kept', async () => {
    const kept = await device()
    const add = kept.add.bind(kept)
    vi.spyOn(kept, 'add').mockImplementationOnce(async (...given) => {
      const id = await add(...given)
      await open(1) // it is read between that it is there and that we know
      return id
    })
    await keepForLater(change('/api/questions/a', { text: 'a' }))
    expect(waitingChanges()).toHaveLength(1)
  })

  it('loses nothing that is kept while the device is read', async () => {
    const kept = await device()
    const read = kept.getAllFromIndex.bind(kept)
    await keepForLater(change('/api/questions/a', { text: 'a' }))
    vi.spyOn(kept, 'getAllFromIndex').mockImplementationOnce(async (...given) => {
      const before = await read(...given) as Waiting[]
      await keepForLater(change('/api/questions/b', { text: 'b' }))
      return before
    })
    await open(1)
    expect(waitingChanges().map(({ address }) => address)).toEqual(['/api/questions/a', '/api/questions/b'])
  })

  it('outlives the page, and belongs to whoever did it', async () => {
    await keepForLater(change('/api/assemblies/9/sheet', { base: 1, body: 'U1 7400' }))
    await open(2)
    expect(waitingChanges()).toEqual([])
    await sendWaiting()
    expect(sent).toEqual([])
    await open(1)
    await sendWaiting()
    expect(bodies(sent)).toEqual([['/api/assemblies/9/sheet', { base: 1, body: 'U1 7400' }]])
  })

  it('gives what cites a photo its number as soon as the photo has one', async () => {
    const photo = await keepForLater({ ...change('/api/machines/9/attachments?name=plug', {}), method: 'POST',
      body: new Blob(['jpg']), type: 'application/octet-stream' })
    const step = JSON.stringify({ line: 'lid off', pictures: [7, standInFor(photo)], amount: -photo })
    expect(withGiven(step)).toEqual({ body: step, waits: true })
    await keepForLater({ ...change('/api/teardowns/2/steps', {}), body: step })
    answers = [answer(201, { id: 411 }), answer(200)]
    await sendWaiting()
    expect(JSON.parse(String(sent[1]?.body))).toEqual({ line: 'lid off', pictures: [7, 411], amount: -photo })
    // A form that was still open meanwhile cites the number, too.
    expect(withGiven(step)).toMatchObject({ waits: false, body: expect.stringContaining('[7,411]') as string })
  })

  it('shows what was not taken, and goes on with the rest', async () => {
    await keepForLater(change('/api/parties/3', { name: 'Pilot', version: 4 }))
    await keepForLater(change('/api/makers/3', { name: 'Hollin', version: 4 }))
    answers = [answer(409, { detail: 'Changed by somebody else.', errors: [{ message: 'Read it again.' }] })]
    await sendWaiting()
    expect(waitingChanges().map(({ refused }) => refused)).toEqual(['Changed by somebody else. Read it again.'])
    await sendWaiting()
    expect(sent, 'what was refused is not sent again by itself').toHaveLength(2)
    const [refused] = waitingChanges()
    await tryAgain(refused as Waiting)
    expect(sent[2]?.key, 'a new request').not.toBe(sent[0]?.key)
    expect(waitingChanges()).toEqual([])
  })

  it('waits where the server is busy, and where somebody else is signed in', async () => {
    await keepForLater(change('/api/parties/3', { name: 'Pilot' }))
    answers = [answer(503), answer(401)]
    await sendWaiting()
    await sendWaiting()
    expect(told.onStranger).toHaveBeenCalledOnce()
    expect(waitingChanges().map(({ refused }) => refused)).toEqual([''])
  })

  it('stands on what the change before has made of the same record', async () => {
    await keepForLater(change('/api/surveys/7/subsystems/batteries', { version: 3 }))
    await keepForLater(change('/api/surveys/7/subsystems/boards', { version: 3 }))
    await keepForLater(change('/api/surveys/70/subsystems/boards', { version: 3 }))
    await keepForLater(change('/api/assemblies/9/sheet', { base: 5, body: 'one' }))
    await keepForLater(change('/api/assemblies/9/sheet', { base: 5, body: 'one, two' }))
    answers = [answer(200, { running: { id: 7, version: 4 } }), answer(200, { running: { id: 7, version: 5 } }),
      answer(200, { running: { id: 70, version: 4 } }), answer(200, { assemblyId: 9, n: 6 })]
    await sendWaiting()
    expect(bodies(sent)).toEqual([['/api/surveys/7/subsystems/batteries', { version: 3 }],
      ['/api/surveys/7/subsystems/boards', { version: 4 }], ['/api/surveys/70/subsystems/boards', { version: 3 }],
      ['/api/assemblies/9/sheet', { base: 5, body: 'one' }], ['/api/assemblies/9/sheet', { base: 6, body: 'one, two' }]])
  })

  it('does not stand on what somebody else made in between', async () => {
    await keepForLater(change('/api/machines/7', { version: 3 }))
    await keepForLater(change('/api/machines/7', { version: 3, name: 'Sorter' }))
    answers = [answer(200, { id: 7, version: 9 })]
    await sendWaiting()
    expect(bodies(sent)[1]).toEqual(['/api/machines/7', { version: 3, name: 'Sorter' }])
  })

  it('can be given up', async () => {
    await keepForLater(change('/api/parties/3', { name: 'Pilot' }))
    await dropWaiting(waitingChanges()[0] as Waiting)
    await sendWaiting()
    expect(sent).toEqual([])
  })
})
