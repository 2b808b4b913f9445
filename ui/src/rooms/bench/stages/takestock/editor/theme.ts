import { EditorView } from '@codemirror/view'

import { color, font } from '../../../../../theme'

export const editorTheme = EditorView.theme({
  '&': { color: color.ink, backgroundColor: 'transparent', fontSize: '15px' },
  '&.cm-focused': { outline: 'none' },
  '.cm-scroller': { fontFamily: font.mono, lineHeight: '24px', maxHeight: '62vh', overflow: 'auto' },
  '.cm-content': { caretColor: color.ink, padding: '8px 0', minHeight: '96px' },
  '.cm-gutters': { backgroundColor: color.sheet, color: color.faint, border: 'none' },
  '.cm-margin': { width: '24px', textAlign: 'center' },
  '.cm-lineNumbers .cm-gutterElement': { minWidth: '28px', padding: '0 8px 0 0', fontSize: '13px' },
  '.cm-activeLine': { backgroundColor: color.slateGround },
  '&:not(.cm-focused) .cm-activeLine': { backgroundColor: 'transparent' },
  '.cm-content ::selection, .cm-line::selection': { backgroundColor: color.line },
  '.cm-placeholder': { color: color.faint, whiteSpace: 'pre' },
  '.cm-line-end': { paddingLeft: '24px', color: color.faint, fontFamily: font.body, fontSize: '13px',
    userSelect: 'none' },
  '.cm-line-end-unknown': { color: color.amber },
  '.cm-line-end-problem': { color: color.rust },
  '.cm-line-end-part, .cm-line-end-recognised': { color: color.faint },
  '.cm-tooltip': { border: `1px solid ${color.line}`, backgroundColor: color.sheet,
    boxShadow: '0 2px 8px rgb(20 25 28 / 20%)' },
  '.cm-tooltip.cm-tooltip-autocomplete > ul': { fontFamily: font.mono, fontSize: '14px' },
  '.cm-tooltip-autocomplete ul li[aria-selected]': { backgroundColor: color.slate, color: color.onSlate },
  '.cm-completionDetail': { fontFamily: font.body, fontStyle: 'normal', marginLeft: '12px' },
})
