import { useQuery } from '@tanstack/react-query'
import { useCallback, useRef, useState } from 'react'

import type { FittedAssembly } from '../api/assemblies'
import { type Draft, type LineState, type ReckonedBoard, type ReckonedMachine, reckoningQuery,
  type Subject } from '../api/reckoning'
import { useSettled } from '../kit/useSettled'

/** A pause in typing of this many milliseconds lets the reckoning follow. */
const pause = 30

/** What was reckoned of one board, and the text that it speaks of. */
export type BoardReckoning = ReckonedBoard & { text: string; lines: LineState[] }

export type Reckoning = {
  machine: ReckonedMachine | undefined
  error: Error | null
  board: (assemblyId: number) => BoardReckoning | undefined
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
  const [drafts, setDrafts] = useState<Record<number, string>>({})
  const settled = useSettled(drafts, pause)
  const sent: Draft[] = assemblies.flatMap(({ id }) => {
    const body = settled[id]
    return body === undefined ? [] : [{ assemblyId: id, body }]
  })
  const stamp = [version, ...assemblies.map((a) =>
    `${String(a.id)}.${String(a.version)}.${String(a.revision)}`)].join(' ')
  const query = useQuery(reckoningQuery(subject, sent, stamp))

  const places = useRef(new Map<number, (line: number) => void>())
  const setDraft = useCallback((id: number, text: string | undefined) => {
    setDrafts((before) => {
      if (before[id] === text) return before
      if (text !== undefined) return { ...before, [id]: text }
      return Object.fromEntries(Object.entries(before).filter(([key]) => key !== String(id)))
    })
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
    board: (id) => {
      const board = data?.boards.find((candidate) => candidate.assemblyId === id)
      const kept = assemblies.find((candidate) => candidate.id === id)?.body ?? ''
      return board && { ...board, text: data?.of.find((draft) => draft.assemblyId === id)?.body ?? kept }
    },
    setDraft,
    show,
    onShow,
  }
}
