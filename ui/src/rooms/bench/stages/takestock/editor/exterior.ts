import type { EditorView } from '@codemirror/view'

/** Writes an example into an empty sheet. */
export const writeExample = (example: string) => (view: EditorView) => {
  if (view.state.doc.length > 0 || view.state.readOnly) return false
  view.dispatch({ changes: { from: 0, insert: example }, selection: { anchor: example.length } })
  return true
}
