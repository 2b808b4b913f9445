import { useQuery } from '@tanstack/react-query'
import { startTransition, useCallback, useEffect, useRef, useState } from 'react'

import type { FittedAssembly } from '../../api/assemblies'
import { type LineState, type ReckonedBoard, type ReckonedMachine, reckoningQuery, type Subject,
  type Turn } from '../../api/reckoning'

/** A pause in typing of this many milliseconds lets the reckoning follow: between two keys nothing is reckoned. */
const pause = 150

/** Counts what was told of editors, in all machines. */
let turns = 0

/** What was reckoned of one board, and the text that it speaks of. */
export type BoardReckoning = ReckonedBoard & { text: string; lines: LineState[] }

export type Reckoning = {
  machine: ReckonedMachine | undefined
  error: Error | null
  board: (assemblyId: number) => ReckonedBoard | undefined
  /** The text of a board that this speaks of: by now another may stand in its editor. */
  textOf: (assemblyId: number) => string
  /** Tells the text that stands in a board's editor; undefined when it is what is kept. */
  setDraft: (assemblyId: number, text: string | undefined) => void
  /** Takes the reader to a line of a board's sheet. */
  show: (assemblyId: number, line: number) => void
  /** Lets a board take its reader to a line. */
  onShow: (assemblyId: number, go: (line: number) => void) => () => void
}

/**
 * Reckons a machine or a loose assembly live from kept sheets and from what stands in the editors;
 * `version` is the machine's.
 */
export function useReckoning(subject: Subject, version: number, assemblies: FittedAssembly[]): Reckoning {
  // What is typed lies beside what is drawn: a key draws its own board anew and nothing else.
  const typed = useRef(new Map<number, string>())
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const [told, setTold] = useState<Turn>({ turn: 0, drafts: [] })
  useEffect(() => () => { clearTimeout(timer.current) }, [])
  const stamp = [version, ...assemblies.map((a) =>
    `${String(a.id)}.${String(a.version)}.${String(a.revision)}`)].join(' ')
  const query = useQuery(reckoningQuery(subject, told, stamp))

  const places = useRef(new Map<number, (line: number) => void>())
  const setDraft = useCallback((id: number, text: string | undefined) => {
    if (typed.current.get(id) === text) return
    if (text === undefined) typed.current.delete(id)
    else typed.current.set(id, text)
    clearTimeout(timer.current)
    timer.current = setTimeout(() => {
      const drafts = [...typed.current].map(([assemblyId, body]) => ({ assemblyId, body }))
      startTransition(() => { setTold({ turn: drafts.length > 0 ? ++turns : 0, drafts }) })
    }, pause)
  }, [])
  const show = useCallback((id: number, line: number) => places.current.get(id)?.(line), [])
  const onShow = useCallback((id: number, go: (line: number) => void) => {
    places.current.set(id, go)
    return () => { places.current.delete(id) }
  }, [])

  const data = query.data
  return {
    machine: data,
    error: query.error,
    board: (id) => data?.boards.find((candidate) => candidate.assemblyId === id),
    textOf: (id) => data?.of.find((draft) => draft.assemblyId === id)?.body
      ?? assemblies.find((candidate) => candidate.id === id)?.body ?? '',
    setDraft,
    show,
    onShow,
  }
}
