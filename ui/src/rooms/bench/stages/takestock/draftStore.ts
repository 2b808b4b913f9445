import { keepUnder, keptUnder } from '../../../../kit/kept'

/** A sheet that the server does not have yet, kept on this device. */
export type KeptDraft = { base: number; text: string }

const name = (assemblyId: number) => `sheet of ${String(assemblyId)}`

export function keptDraft(assemblyId: number): KeptDraft | undefined {
  const draft = keptUnder<unknown>(name(assemblyId), `heron.sheet.${String(assemblyId)}`)
  return draft && typeof draft === 'object' && 'base' in draft && 'text' in draft ? draft as KeptDraft : undefined
}

export function keepDraft(assemblyId: number, draft: KeptDraft | undefined) {
  keepUnder(name(assemblyId), draft)
}
