import { useCallback, useReducer, useRef } from 'react'

import { attachmentsChanged, type Owner, sendFile } from '../../api/attachments'
import { KeptForLater, messageOf } from '../../api/problem'

export type Upload = { key: number; name: string; state: 'waiting' | 'sending' | 'kept' | 'refused'; part: number;
  why: string; file: File }

type Action = { type: 'add'; uploads: Upload[] } | { type: 'change'; key: number; to: Partial<Upload> }
  | { type: 'clear' }

export function nextUploads(uploads: Upload[], action: Action): Upload[] {
  switch (action.type) {
    case 'add':
      return [...uploads, ...action.uploads]
    case 'change':
      return uploads.map((one) => (one.key === action.key ? { ...one, ...action.to } : one))
    case 'clear':
      return uploads.filter(({ state }) => state === 'waiting' || state === 'sending')
  }
}

/** How many files are on their way at once. */
const atOnce = 3

/** Sends files a few at a time. What was not kept stays in the list, and can be sent again. */
export function useUploads(owner: Owner) {
  const [uploads, act] = useReducer(nextUploads, [])
  const waiting = useRef<Upload[]>([])
  const running = useRef(0)
  const counter = useRef(0)
  const of = useRef(owner)

  const send = useCallback((files: Iterable<File>) => {
    const added = [...files].map((file): Upload => ({ key: ++counter.current, name: file.name, state: 'waiting',
      part: 0, why: '', file }))
    waiting.current.push(...added)
    act({ type: 'add', uploads: added })
    const work = async () => {
      for (let next = waiting.current.shift(); next; next = waiting.current.shift()) {
        const change = (to: Partial<Upload>) => { act({ type: 'change', key: next.key, to }) }
        change({ state: 'sending' })
        try {
          await sendFile(of.current, next.file, (part) => { change({ part }) })
          change({ state: 'kept' })
        } catch (error) {
          // Without a connection it is kept on this device, and sent later.
          change(error instanceof KeptForLater ? { state: 'kept' } : { state: 'refused', why: messageOf(error) })
        }
      }
      running.current--
      if (running.current === 0) attachmentsChanged()
    }
    for (let start = Math.min(atOnce - running.current, added.length); start > 0; start--) {
      running.current++
      void work()
    }
  }, [])

  const again = useCallback(() => {
    const failed = uploads.filter(({ state }) => state === 'refused')
    act({ type: 'clear' })
    send(failed.map(({ file }) => file))
  }, [uploads, send])

  return { uploads, send, again, clear: () => { act({ type: 'clear' }) } }
}
