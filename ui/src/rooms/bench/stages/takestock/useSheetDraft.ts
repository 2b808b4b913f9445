import { useEffect, useReducer } from 'react'

import { type FittedAssembly, noteRevision, type Revision, saveSheet } from '../../../../api/assemblies'
import { ProblemError } from '../../../../api/problem'
import { forgetDraft, keepDraft, keptDraft } from './draftStore'

/** A sheet in the editor: the revision it was written on, what is kept there, and what is typed. */
type State = {
  base: number
  kept: string
  text: string
  saving: boolean
  newer: Revision | undefined // somebody else's, met when saving
  error: ProblemError | undefined
}

type Action =
  | { type: 'typed'; text: string }
  | { type: 'saving' }
  | { type: 'saved'; revision: Revision }
  | { type: 'refused'; error: ProblemError }
  | { type: 'keep mine' }
  | { type: 'take theirs' }
  | { type: 'loaded'; n: number; body: string }

function next(state: State, action: Action): State {
  switch (action.type) {
    case 'typed':
      return { ...state, text: action.text, error: undefined }
    case 'saving':
      return { ...state, saving: true, error: undefined }
    case 'saved':
      return { ...state, saving: false, base: action.revision.n, kept: action.revision.body, newer: undefined }
    case 'refused':
      return { ...state, saving: false, error: action.error, newer: action.error.problem?.newer?.sheet ?? state.newer }
    case 'keep mine':
      return state.newer ? { ...state, base: state.newer.n, kept: state.newer.body, newer: undefined, error: undefined } : state
    case 'take theirs':
      return state.newer
        ? { ...state, base: state.newer.n, kept: state.newer.body, text: state.newer.body, newer: undefined, error: undefined }
        : state
    case 'loaded':
      // A newer revision only replaces what nobody changed here; else saving will meet it.
      return state.text === state.kept && action.n > state.base
        ? { ...state, base: action.n, kept: action.body, text: action.body }
        : state
  }
}

/** The draft of a board's sheet. It stays on this device until the server has it. */
export function useSheetDraft(machineId: number, assembly: FittedAssembly) {
  const [state, act] = useReducer(next, assembly, start)
  const isChanged = state.text !== state.kept

  useEffect(() => { act({ type: 'loaded', n: assembly.revision, body: assembly.body }) }, [assembly.revision, assembly.body])

  useEffect(() => {
    if (isChanged) keepDraft(assembly.id, { base: state.base, text: state.text })
    else forgetDraft(assembly.id)
  }, [assembly.id, isChanged, state.base, state.text])

  const save = async () => {
    if (state.saving || (!isChanged && state.base > 0)) return
    act({ type: 'saving' })
    try {
      const revision = await saveSheet(assembly.id, state.base, state.text)
      act({ type: 'saved', revision })
      noteRevision(machineId, revision)
    } catch (error) {
      act({ type: 'refused', error: error instanceof ProblemError ? error : new ProblemError(0, undefined) })
    }
  }

  return {
    ...state,
    isChanged,
    type: (text: string) => { act({ type: 'typed', text }) },
    save,
    keepMine: () => { act({ type: 'keep mine' }) },
    takeTheirs: () => { act({ type: 'take theirs' }) },
  }
}

function start(assembly: FittedAssembly): State {
  const draft = keptDraft(assembly.id)
  return {
    base: draft?.base ?? assembly.revision,
    kept: assembly.body,
    text: draft?.text ?? assembly.body,
    saving: false,
    newer: undefined,
    error: undefined,
  }
}
