import { acceptCompletion, selectedCompletion } from '@codemirror/autocomplete'
import type { EditorState } from '@codemirror/state'
import type { Command } from '@codemirror/view'

import { example } from '../../../../../kit/examples'

/** Where the words after the designators start, in characters. */
const wordsColumn = 11

/**
 * The designator that would follow those a line starts with: U49 after U40-U48. A keystroke cannot
 * wait for the server, and nothing is reckoned from it: it is a proposal to type over.
 */
export function nextDesignator(line: string): string | undefined {
  const subject = /^\s*[A-Za-z]{1,6}\d+(?:(?:\.\.|[-,–])[A-Za-z]{0,6}\d+)*/.exec(line)?.[0]
  if (!subject || !/^\s*$/.test(line.charAt(subject.length))) return undefined
  const letters = /[A-Za-z]+/.exec(subject)?.[0]
  const digits = /(\d+)$/.exec(subject)?.[1]
  if (!letters || !digits) return undefined
  return letters + String(Number(digits) + 1).padStart(digits.length, '0')
}

/** Enter: takes the chosen proposal, or opens a line with the next designator. On a line that
 * holds nothing but the proposed designator it clears it, so that Enter twice ends the run. */
export const newLine: Command = (view) => {
  if (selectedCompletion(view.state)) return acceptCompletion(view)
  const { state } = view
  const { line, atEnd } = here(state)
  if (!atEnd || state.readOnly) return false
  if (/^[A-Za-z]{1,6}\d+\s+$/.test(line.text)) {
    view.dispatch({ changes: { from: line.from, to: line.to }, userEvent: 'input' })
    return true
  }
  const next = nextDesignator(line.text)
  if (!next) return false
  insertLine(view, line.to, next.padEnd(wordsColumn))
  return true
}

/** Alt+Enter: repeats the line above with the next designator; on a fresh line, that before it; in
 * an empty sheet, writes the example. */
export const repeatLine: Command = (view) => {
  const { state } = view
  if (state.readOnly) return false
  if (state.doc.length === 0) {
    view.dispatch({ changes: { from: 0, insert: example }, selection: { anchor: example.length }, userEvent: 'input' })
    return true
  }
  const { line } = here(state)
  const isFresh = /^\s*$|^[A-Za-z]{1,6}\d+\s+$/.test(line.text)
  const model = isFresh && line.number > 1 ? state.doc.line(line.number - 1) : line
  const next = nextDesignator(model.text)
  if (!next) return false
  const words = model.text.trimStart().replace(/^\S+(?:,\s+\S+)*\s*/, '')
  const repeated = next.padEnd(wordsColumn) + words
  if (isFresh && line.number > 1) {
    view.dispatch({ changes: { from: line.from, to: line.to, insert: repeated },
      selection: { anchor: line.from + repeated.length }, userEvent: 'input' })
  } else {
    insertLine(view, line.to, repeated)
  }
  return true
}

function here(state: EditorState) {
  const { head, empty } = state.selection.main
  const line = state.doc.lineAt(head)
  return { line, atEnd: empty && head === line.to }
}

function insertLine(view: Parameters<Command>[0], at: number, text: string) {
  view.dispatch({
    changes: { from: at, insert: `\n${text}` },
    selection: { anchor: at + 1 + text.length },
    scrollIntoView: true,
    userEvent: 'input',
  })
}
