import type { Mutation } from '@tanstack/react-query'

import { keepUnder } from './drafts'

/**
 * Which draft a change sends, so that it is forgotten when the server has it, whether its form is still there
 * or not.
 */
const sends = new WeakMap<object, string>()
let name: string | undefined

/** Sends a form: the change that begins in it carries what is kept under the name. */
export function sending(keptAs: string | null, send: () => void) {
  name = keptAs ?? undefined
  try {
    send()
  } finally {
    name = undefined
  }
}

/** Notes, as a change begins, whose words it carries. */
export function changeBegins(change: Mutation<unknown, unknown, unknown>) {
  if (name !== undefined) sends.set(change, name)
}

/** The server has it, or it waits among what is to be sent: what was typed need not be kept any more. */
export function changeIsKept(change: Mutation<unknown, unknown, unknown>) {
  const sent = sends.get(change)
  if (sent !== undefined) keepUnder(sent, undefined)
}
