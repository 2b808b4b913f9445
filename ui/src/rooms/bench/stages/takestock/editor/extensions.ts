import { closeBracketsKeymap, completionKeymap } from '@codemirror/autocomplete'
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands'
import { Annotation, EditorState, type Extension, Prec } from '@codemirror/state'
import { EditorView, highlightActiveLine, keymap, lineNumbers, placeholder } from '@codemirror/view'

import { example, exteriorExample } from '../../../../../kit/examples'
import { libraryCompletion } from './completion'
import { lineStates } from './lineStates'
import { newLine, repeatLine } from './nextLine'
import { writeExample } from './exterior'
import { editorTheme } from './theme'

/** Marks a change that was not typed here: a text that was brought back, merged or read anew. */
export const fromExterior = Annotation.define<boolean>()

type Options = {
  label: string
  readOnly: boolean
  isExterior: boolean
  onType: (text: string) => void
  onSave: () => void
  onName: (line: number) => boolean
  onPicture: (line: string) => boolean
}

/** All that makes a text field the sheet editor. Tab is left alone: it leaves the editor. */
export function extensions({ label, readOnly, isExterior, onType, onSave, onName, onPicture }: Options): Extension {
  const saveKey = { key: 'Mod-s', preventDefault: true, run: () => { onSave(); return true } }
  const nameKey = { key: 'Alt-n', preventDefault: true, run: (view: EditorView) =>
    onName(view.state.doc.lineAt(view.state.selection.main.head).number) }
  const pictureKey = { key: 'Alt-p', preventDefault: true, run: (view: EditorView) =>
    onPicture(view.state.doc.lineAt(view.state.selection.main.head).text) }
  return [
    lineStates(onName),
    lineNumbers(),
    history(),
    highlightActiveLine(),
    placeholder(readOnly ? 'Nothing written yet.'
      : `${isExterior ? exteriorExample : example}\n\n# Alt+Enter writes this example`),
    isExterior
      ? Prec.high(keymap.of([saveKey, { key: 'Alt-Enter', run: writeExample(exteriorExample) }]))
      : [libraryCompletion,
        Prec.high(keymap.of([saveKey, nameKey, pictureKey, { key: 'Enter', run: newLine },
          { key: 'Alt-Enter', run: repeatLine }]))],
    keymap.of([...completionKeymap.filter(({ key }) => key !== 'Enter'), ...closeBracketsKeymap, ...historyKeymap,
      ...defaultKeymap]),
    EditorState.readOnly.of(readOnly),
    EditorView.editable.of(!readOnly),
    EditorView.contentAttributes.of({ 'aria-label': label, spellcheck: 'false', autocapitalize: 'off', tabindex: '0' }),
    EditorView.cspNonce.of(document.querySelector<HTMLMetaElement>('meta[property=csp-nonce]')?.nonce ?? ''),
    EditorView.updateListener.of((update) => {
      if (update.docChanged && !update.transactions.some((one) => one.annotation(fromExterior)))
        onType(update.state.doc.toString())
    }),
    editorTheme,
  ]
}
