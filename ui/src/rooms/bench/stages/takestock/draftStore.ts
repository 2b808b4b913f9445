/** A sheet that the server does not have yet, kept on this device. */
export type KeptDraft = { base: number; text: string }

const key = (assemblyId: number) => `heron.sheet.${String(assemblyId)}`

export function keptDraft(assemblyId: number): KeptDraft | undefined {
  try {
    const draft: unknown = JSON.parse(localStorage.getItem(key(assemblyId)) ?? 'null')
    if (draft && typeof draft === 'object' && 'base' in draft && 'text' in draft) return draft as KeptDraft
  } catch {
    // Not ours, or storage is closed: there is no draft.
  }
  return undefined
}

export function keepDraft(assemblyId: number, draft: KeptDraft) {
  try {
    localStorage.setItem(key(assemblyId), JSON.stringify(draft))
  } catch {
    // Storage is full or closed; the text stays in the editor.
  }
}

export function forgetDraft(assemblyId: number) {
  localStorage.removeItem(key(assemblyId))
}
