import { keepUnder, keptUnder } from './drafts'

function ownerless(key: string) {
  const sheet = /^heron\.sheet\.(\d+)$/.exec(key)?.[1]
  return sheet ? `sheet of ${sheet}` : /^heron\.typed\.(?:nobody\.)?(?!\d+\.)(.+)$/.exec(key)?.[1]
}

/** Takes over what an earlier version kept elsewhere: one's own, and what had no owner, if one may send it. */
export function takeOver(account: number, mayWrite: boolean) {
  const own = `heron.typed.${String(account)}.`
  try {
    for (const key of Object.keys(localStorage)) {
      const name = key.startsWith(own) ? key.slice(own.length) : mayWrite ? ownerless(key) : undefined
      if (!name) continue
      const value: unknown = JSON.parse(localStorage.getItem(key) ?? 'null') ?? undefined
      if (value !== undefined && keptUnder(name) === undefined) keepUnder(name, value)
      localStorage.removeItem(key)
    }
  } catch {
    // Not ours, or storage is closed.
  }
}
