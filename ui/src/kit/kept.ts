import { queryClient, type Schemas, sessionKey } from '../api/client'

const account = () => queryClient.getQueryData<Schemas['SessionBody']>(sessionKey)?.account

/** What is kept belongs to whoever typed it: somebody else who signs in on this device neither sees nor sends it. */
const key = (name: string) => `heron.typed.${String(account()?.id ?? 'nobody')}.${name}`

/**
 * What was typed under a name and is not sent yet, as this device keeps it; undefined for nothing. What an earlier
 * version kept without an owner goes to the first who may send it.
 */
export function keptUnder<Value>(name: string, ownerless = `heron.typed.${name}`): Value | undefined {
  try {
    const adopted = account()?.mayWriteSheets ? localStorage.getItem(ownerless) : null
    if (adopted !== null) {
      localStorage.setItem(key(name), adopted)
      localStorage.removeItem(ownerless)
    }
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
