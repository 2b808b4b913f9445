import { autocompletion, type CompletionContext, type CompletionResult } from '@codemirror/autocomplete'

import { completions } from '../../../../../api/reckoning'

/** Proposes type numbers of the library for a word behind the designators. */
async function source(context: CompletionContext): Promise<CompletionResult | null> {
  const word = context.matchBefore(/[A-Za-z0-9]{2,}/)
  if (!word) return null
  const before = context.state.doc.lineAt(word.from).text.slice(0, word.from - context.state.doc.lineAt(word.from).from)
  if (!/\S\s+$/.test(before)) return null // the word is the designator itself
  try {
    const types = await completions(word.text)
    if (context.aborted || types.length === 0) return null
    return {
      from: word.from,
      options: types.map((type) => ({ label: type.number, detail: type.function })),
      filter: false,
    }
  } catch {
    return null // typing goes on without proposals
  }
}

// Nothing is chosen until an arrow key says so: Enter must stay the key for the next line.
export const libraryCompletion = autocompletion({ override: [source], selectOnOpen: false, icons: false,
  defaultKeymap: false })
