import type { Draft } from './device'

/**
 * What was typed in the last moments of a page. Writing it to the device takes longer than a page that is closed is
 * given; this is slow, but done at once.
 */
const start = 'heron.last.'
const key = (account: number, name: string) => `${start}${String(account)}.${name}`

export function keepLastWords(draft: Draft) {
  try {
    localStorage.setItem(key(draft.account, draft.name), JSON.stringify(draft))
  } catch {
    // No room; what was written before is there.
  }
}

export function forgetLastWords(account: number, name: string) {
  try {
    localStorage.removeItem(key(account, name))
  } catch {
    // Storage is closed.
  }
}

/** What an account typed last before its page was closed. */
export function lastWords(account: number): Draft[] {
  try {
    return Object.keys(localStorage).filter((one) => one.startsWith(key(account, ''))).map((one) =>
      JSON.parse(localStorage.getItem(one) ?? '') as Draft)
  } catch {
    return []
  }
}
