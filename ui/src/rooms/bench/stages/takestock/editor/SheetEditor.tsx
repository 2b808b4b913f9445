import { useEffect, useEffectEvent, useRef } from 'react'
import styled from 'styled-components'
import { EditorState } from '@codemirror/state'
import { EditorView } from '@codemirror/view'

import type { BoardReckoning } from '../../../../../features/reckoning/useReckoning'
import { color } from '../../../../../theme'
import type { SheetDraft } from '../useSheetDraft'
import { extensions, fromExterior } from './extensions'
import { setLineStates } from './lineStates'

type Props = {
  title: string
  draft: SheetDraft
  reckoned: BoardReckoning | undefined
  spot: { line: number } | undefined
  readOnly: boolean
  autoFocus: boolean
  isExterior: boolean
  /** A text to go on with at the end. */
  insert: { text: string } | undefined
  /** Names the unknown chip of a line; false where there is none. */
  onName: (line: number) => boolean
  /** Shows the part of a line on a picture of its board; false where it names none. */
  onPicture: (line: string) => boolean
}

/** The sheet as text: marks in the margin, what each line is at its end, proposals while typing. */
export default function SheetEditor({ title, draft, reckoned, spot, readOnly, autoFocus, isExterior, insert, onName,
  onPicture }: Props) {
  const host = useRef<HTMLDivElement>(null)
  const view = useRef<EditorView>(null)
  const isTyping = useRef(false)
  const name = useEffectEvent(onName)
  const picture = useEffectEvent(onPicture)
  const showStates = useEffectEvent((editor: EditorView) => {
    if (reckoned && editor.state.doc.toString() === reckoned.text)
      editor.dispatch({ effects: setLineStates.of(reckoned.lines) })
  })
  const focusFirst = useEffectEvent(() => autoFocus)

  useEffect(() => {
    if (!host.current) return
    const editor = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: draft.state.text,
        extensions: extensions({
          label: `Sheet of ${title}`,
          readOnly,
          isExterior,
          onType: (text) => {
            isTyping.current = true
            draft.type(text)
            isTyping.current = false
          },
          onSave: () => void draft.save(),
          onName: (line) => name(line),
          onPicture: (line) => picture(line),
        }),
      }),
    })
    view.current = editor
    if (focusFirst()) editor.focus()
    // What is typed here is in the draft already; any other text was brought back, merged or read anew.
    const leave = draft.subscribe(() => {
      const { text } = draft.state
      if (isTyping.current || editor.state.doc.toString() === text) return
      editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: text },
        annotations: fromExterior.of(true) })
      showStates(editor)
    })
    return () => {
      leave()
      editor.destroy()
      view.current = null
    }
  }, [title, draft, readOnly, isExterior])

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

  useEffect(() => { if (view.current) showStates(view.current) }, [reckoned, title, draft, readOnly])

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
