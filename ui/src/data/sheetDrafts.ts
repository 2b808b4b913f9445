import type { Waiting } from './device'
import { keepUnder, keptUnder } from './drafts'

/** A sheet that the server does not have yet, kept on this device. */
export type KeptDraft = { base: number; text: string; sent?: string }

const name = (assemblyId: number) => `sheet of ${String(assemblyId)}`

export function keptDraft(assemblyId: number): KeptDraft | undefined {
  const draft = keptUnder<unknown>(name(assemblyId))
  return draft && typeof draft === 'object' && 'base' in draft && 'text' in draft ? draft as KeptDraft : undefined
}

export function keepDraft(assemblyId: number, draft: KeptDraft | undefined) {
  keepUnder(name(assemblyId), draft)
}

/** A sheet that waited has arrived: what was typed since then stands on the revision that it became. */
export function sheetIsSent({ address, body }: Pick<Waiting, 'address' | 'body'>, answer: unknown) {
  const id = Number(/^\/api\/assemblies\/(\d+)\/sheet$/.exec(address)?.[1])
  const draft = id ? keptDraft(id) : undefined
  if (!draft || typeof body !== 'string') return
  const { body: sent } = JSON.parse(body) as { body: string }
  const { n } = answer as { n: number }
  if (draft.text === sent) keepDraft(id, undefined)
  else if (draft.sent === sent) keepDraft(id, { base: n, text: draft.text })
}
