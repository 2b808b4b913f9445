import type { EditorView } from '@codemirror/view'

/** How the sheet of an outside may begin. */
export const exteriorExample = `== front
badge     model "Meridian 2"
drive     5.25 inch, half height
== rear
plate     220-240 V 50 Hz 0.6 A earth
label     serial "TV2-00817"
port      D-sub 25 female "SERIAL" use: printer
missing   blanking plate, slot 4
== underside
foot      3 of 4
weight    11.4 kg`

/** Writes an example into an empty sheet. */
export const writeExample = (example: string) => (view: EditorView) => {
  if (view.state.doc.length > 0 || view.state.readOnly) return false
  view.dispatch({ changes: { from: 0, insert: example }, selection: { anchor: example.length } })
  return true
}
