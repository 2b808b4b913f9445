/** Where somebody went by the line last, on this device and by account: it comes first when they go there again. */
export type Used = { key: string; text: string; more?: string; to: string }

const most = 12
const name = (account: number) => `heron.used.${String(account)}`

export function usedLast(account: number): Used[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(name(account)) ?? '[]')
    return Array.isArray(kept) ? kept.filter((one): one is Used => typeof one === 'object' && one !== null
      && 'key' in one && 'to' in one && typeof one.to === 'string' && one.to.startsWith('/')) : []
  } catch {
    return [] // somebody else wrote there, or this browser keeps nothing
  }
}

export function noteUsed(account: number, used: Used) {
  const kept = [used, ...usedLast(account).filter(({ to }) => to !== used.to)].slice(0, most)
  try {
    localStorage.setItem(name(account), JSON.stringify(kept))
  } catch {
    return // a browser that keeps nothing, or is full
  }
}

/** At sign-out nothing of it stays. */
export function forgetUsed(account: number) {
  localStorage.removeItem(name(account))
}
