import { useEffect, useEffectEvent, useRef } from 'react'
import styled from 'styled-components'
import { EditorState } from '@codemirror/state'
import { EditorView } from '@codemirror/view'

import type { BoardReckoning } from '../../../../../reckoning/useReckoning'
import { color } from '../../../../../theme'
import { extensions, fromExterior } from './extensions'
import { setLineStates } from './lineStates'

type Props = {
  title: string
  text: string
  reckoned: BoardReckoning | undefined
  spot: { line: number } | undefined
  readOnly: boolean
  autoFocus: boolean
  isExterior: boolean
  /** A text to go on with at the end. */
  insert: { text: string } | undefined
  onType: (text: string) => void
  onSave: () => void
  /** Names the unknown chip of a line; false where there is none. */
  onName: (line: number) => boolean
}

/** The sheet as text: marks in the margin, what each line is at its end, proposals while typing. */
export default function SheetEditor({ title, text, reckoned, spot, readOnly, autoFocus, isExterior, insert, onType,
  onSave, onName }: Props) {
  const host = useRef<HTMLDivElement>(null)
  const view = useRef<EditorView>(null)
  const told = useRef<string[]>([]) // texts typed here that have not come back yet
  const typed = useEffectEvent((value: string) => {
    told.current.push(value)
    onType(value)
  })
  const save = useEffectEvent(onSave)
  const name = useEffectEvent(onName)
  const first = useEffectEvent(() => ({ text, autoFocus }))

  useEffect(() => {
    if (!host.current) return
    const start = first()
    const editor = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: start.text,
        extensions: extensions({
          label: `Sheet of ${title}`,
          readOnly,
          isExterior,
          onType: (value) => { typed(value) },
          onSave: () => { save() },
          onName: (line) => name(line),
        }),
      }),
    })
    view.current = editor
    if (start.autoFocus) editor.focus()
    return () => {
      editor.destroy()
      view.current = null
    }
  }, [title, readOnly, isExterior])

  useEffect(() => {
    const editor = view.current
    if (!editor) return
    // Keys are faster than drawing: this may be what stood here some keys ago, and is no news.
    const known = told.current.lastIndexOf(text)
    told.current = told.current.slice(known + 1)
    if (known >= 0 || editor.state.doc.toString() === text) return
    told.current = []
    editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: text },
      annotations: fromExterior.of(true) })
  }, [text])

  useEffect(() => {
    const editor = view.current
    if (!editor || !insert) return
    // After the text was set: on an editor that has just come up, both happen at once.
    const end = editor.state.doc.length
    const text = end > 0 && editor.state.doc.lineAt(end).text !== '' ? `\n${insert.text}` : insert.text
    editor.dispatch({ changes: { from: end, insert: text }, selection: { anchor: end + text.length },
      scrollIntoView: true })
    editor.focus()
  }, [insert])

  useEffect(() => {
    const editor = view.current
    if (!editor || !reckoned || editor.state.doc.toString() !== reckoned.text) return
    editor.dispatch({ effects: setLineStates.of(reckoned.lines) })
  }, [reckoned, text, title, readOnly])

  useEffect(() => {
    const editor = view.current
    if (!editor || !spot || spot.line > editor.state.doc.lines) return
    const line = editor.state.doc.line(spot.line)
    // The cursor only: a chosen line would be typed over.
    editor.dispatch({ selection: { anchor: line.to }, effects: EditorView.scrollIntoView(line.from, { y: 'center' }) })
    editor.focus()
    editor.dom.scrollIntoView({ block: 'nearest' })
  }, [spot])

  return <Host ref={host} />
}

const Host = styled.div`
  border: 1px solid ${color.line};
  background: ${color.sheet};
  &:focus-within { border-color: ${color.slate}; }
`
