import { useEffect, useReducer } from 'react'

import { type FittedAssembly, noteRevision, saveSheet } from '../../../../api/assemblies'
import { ProblemError } from '../../../../api/problem'
import { keepDraft, keptDraft } from '../../../../data/sheetDrafts'
import { isChanged as changed, nextDraft, startDraft } from './sheetDraft'

/** The draft of a board's sheet. It stays on this device until the server has it. */
export function useSheetDraft(assembly: FittedAssembly) {
  const [state, act] = useReducer(nextDraft, assembly, start)
  const isChanged = changed(state)

  useEffect(() => { act({ type: 'loaded', n: assembly.revision, body: assembly.body }) },
    [assembly.revision, assembly.body])

  useEffect(() => {
    keepDraft(assembly.id, isChanged ? { base: state.base, text: state.text, sent: state.sent } : undefined)
  }, [assembly.id, isChanged, state.base, state.text, state.sent])

  const send = async (base: number, text: string) => {
    act({ type: 'saving' })
    try {
      const revision = await saveSheet(assembly.id, base, text)
      act({ type: 'saved', revision })
      noteRevision(assembly, revision)
    } catch (error) {
      act({ type: 'refused', error: error instanceof ProblemError ? error : new ProblemError(0, undefined) })
    }
  }
  const save = async () => {
    if (state.saving || (!isChanged && state.base > 0)) return
    await send(state.base, state.text)
  }
  const saveMerged = async (text: string) => {
    if (state.saving || !state.newer) return
    act({ type: 'merging', text })
    await send(state.newer.n, text)
  }

  return {
    ...state,
    isChanged,
    type: (text: string) => { act({ type: 'typed', text }) },
    save,
    saveMerged,
    takeTheirs: () => { act({ type: 'take theirs' }) },
  }
}

function start(assembly: FittedAssembly) {
  return startDraft(assembly, keptDraft(assembly.id))
}
