import { useEffect, useState, useSyncExternalStore } from 'react'

import { type FittedAssembly, noteRevision, saveSheet } from '../../../../api/assemblies'
import { ProblemError } from '../../../../api/problem'
import { keepDraft, keptDraft } from '../../../../data/sheetDrafts'
import { type DraftAction, type DraftState, isChanged, nextDraft, startDraft } from './sheetDraft'

/**
 * The draft of a board's sheet, outside of what is drawn: a key that is typed changes it and draws nothing, and who
 * shows a part of it draws that part. It stays on this device until the server has it.
 */
export class SheetDraft {
  private readonly listeners = new Set<() => void>()
  state: DraftState
  assembly: FittedAssembly

  constructor(assembly: FittedAssembly) {
    this.assembly = assembly
    this.state = startDraft(assembly, keptDraft(assembly.id))
  }

  subscribe = (tell: () => void) => {
    this.listeners.add(tell)
    return () => { this.listeners.delete(tell) }
  }

  act(action: DraftAction) {
    const next = nextDraft(this.state, action)
    if (next === this.state) return
    this.state = next
    keepDraft(this.assembly.id,
      isChanged(next) ? { base: next.base, text: next.text, sent: next.sent } : undefined)
    for (const tell of this.listeners) tell()
  }

  /** What the server has by now. */
  loaded(assembly: FittedAssembly) {
    this.assembly = assembly
    this.act({ type: 'loaded', n: assembly.revision, body: assembly.body })
  }

  type = (text: string) => { this.act({ type: 'typed', text }) }
  takeTheirs = () => { this.act({ type: 'take theirs' }) }

  save = async () => {
    const { saving, base, text } = this.state
    if (saving || (!isChanged(this.state) && base > 0)) return
    await this.send(base, text)
  }

  saveMerged = async (text: string) => {
    const { saving, newer } = this.state
    if (saving || !newer) return
    this.act({ type: 'merging', text })
    await this.send(newer.n, text)
  }

  private async send(base: number, text: string) {
    this.act({ type: 'saving' })
    try {
      const revision = await saveSheet(this.assembly.id, base, text)
      this.act({ type: 'saved', revision })
      noteRevision(this.assembly, revision)
    } catch (error) {
      this.act({ type: 'refused', error: error instanceof ProblemError ? error : new ProblemError(0, undefined) })
    }
  }
}

export function useSheetDraft(assembly: FittedAssembly): SheetDraft {
  const [draft] = useState(() => new SheetDraft(assembly))
  useEffect(() => { draft.loaded(assembly) }, [draft, assembly])
  return draft
}

/** A part of the draft; what shows it is drawn anew only when that part is another. */
export function useDraftPart<Part>(draft: SheetDraft, part: (state: DraftState) => Part): Part {
  return useSyncExternalStore(draft.subscribe, () => part(draft.state))
}
