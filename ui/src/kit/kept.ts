const key = (name: string) => `heron.typed.${name}`

/** What was typed under a name and is not sent yet, as this device keeps it; undefined for nothing. */
export function keptUnder<Value>(name: string): Value | undefined {
  try {
    return (JSON.parse(localStorage.getItem(key(name)) ?? 'null') ?? undefined) as Value | undefined
  } catch {
    return undefined // not ours, or storage is closed
  }
}

/** Keeps what was typed until it is sent; undefined forgets it. */
export function keepUnder(name: string, value: unknown) {
  try {
    if (value === undefined) localStorage.removeItem(key(name))
    else localStorage.setItem(key(name), JSON.stringify(value))
  } catch {
    // Storage is full or closed; what was typed stays in the form.
  }
}
