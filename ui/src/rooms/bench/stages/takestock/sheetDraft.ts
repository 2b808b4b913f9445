import type { Revision } from '../../../../api/assemblies'
import { KeptForLater, type ProblemError } from '../../../../api/problem'
import type { KeptDraft } from '../../../../data/sheetDrafts'

/** A sheet in the editor: the revision it was written on, what is kept there, and what is typed. */
export type DraftState = {
  base: number
  kept: string
  text: string
  saving: boolean
  newer: Revision | undefined // somebody else's, met when saving
  error: ProblemError | undefined
  /** What waits to be sent, if something does. */
  sent?: string
}

export type DraftAction =
  | { type: 'typed'; text: string }
  | { type: 'saving' }
  | { type: 'saved'; revision: Revision }
  | { type: 'refused'; error: ProblemError }
  | { type: 'merging'; text: string }
  | { type: 'take theirs' }
  | { type: 'loaded'; n: number; body: string }

export function nextDraft(state: DraftState, action: DraftAction): DraftState {
  switch (action.type) {
    case 'typed':
      return { ...state, text: action.text, error: undefined }
    case 'saving':
      return { ...state, saving: true, error: undefined }
    case 'saved':
      return { ...state, saving: false, base: action.revision.n, kept: action.revision.body, newer: undefined }
    case 'refused':
      return { ...state, saving: false, error: action.error, newer: action.error.problem?.newer?.sheet ?? state.newer,
        ...(action.error instanceof KeptForLater && { sent: state.text }) }
    case 'merging':
      // From now on the text stands on theirs: only what differs from it is ours.
      return state.newer
        ? { ...state, base: state.newer.n, kept: state.newer.body, text: action.text, newer: undefined,
          error: undefined }
        : state
    case 'take theirs':
      return state.newer
        ? { ...state, base: state.newer.n, kept: state.newer.body, text: state.newer.body, newer: undefined,
          error: undefined }
        : state
    case 'loaded':
      // What waited has arrived: what was typed since then stands on it.
      if (action.n > state.base && action.body === (state.sent ?? state.text))
        return { ...state, base: action.n, kept: action.body, error: undefined, sent: undefined }
      // A newer revision only replaces what nobody changed here; else saving will meet it.
      return state.text === state.kept && action.n > state.base
        ? { ...state, base: action.n, kept: action.body, text: action.body }
        : state
  }
}

/** Whether the editor holds what the server does not have. */
export function isChanged({ text, kept }: DraftState): boolean {
  return text !== kept
}

/** The state to begin with: what is kept, or the draft that this device has of it. */
export function startDraft(assembly: { revision: number; body: string }, draft: KeptDraft | undefined): DraftState {
  return {
    base: draft?.base ?? assembly.revision,
    kept: assembly.body,
    text: draft?.text ?? assembly.body,
    saving: false,
    newer: undefined,
    error: undefined,
    sent: draft?.sent,
  }
}
