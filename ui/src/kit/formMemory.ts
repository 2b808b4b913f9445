import { createContext, useContext, useEffect, useState } from 'react'

/** What a form keeps of its fields, by their names. */
export type FormMemory = {
  start: (field: string) => unknown
  keep: (field: string, value: unknown) => void
  /** What a field held when the form was opened; it is noted the first time. */
  original: (field: string, value: unknown) => unknown
}

const nothing: FormMemory = { start: () => undefined, keep: () => undefined, original: (_, value) => value }

export const Memory = createContext<FormMemory>(nothing)

/** What a field began with the last time, if the form was not sent, and how it keeps what it holds now. */
export function useMemory(field: string | undefined) {
  const memory = useContext(Memory)
  const [start] = useState(() => field === undefined ? undefined : memory.start(field))
  return {
    start,
    keep: (value: unknown) => { if (field !== undefined) memory.keep(field, value) },
    original: (value: unknown) => field === undefined ? value : memory.original(field, value),
  }
}

type Control<Value> = { value?: Value; defaultValue?: Value; onChange?: (value: Value) => void }

/** Gives a field what was typed into it and not sent, and keeps what is typed. */
export function useRemembered<Value>(field: string | undefined, { value, defaultValue, onChange }: Control<Value>) {
  const { start, keep, original } = useMemory(field)
  const kept = start as Value | undefined
  useEffect(() => {
    // Whose value lies with the form has to be told: what was kept, or when it begins anew how it was.
    if (value === undefined) return
    const before = original(value) as Value
    const now = kept ?? before
    if (now !== value) onChange?.(now)
  // As it was when the form was opened.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [])
  return {
    ...(value === undefined && { defaultValue: kept ?? defaultValue }),
    onChange: (now: Value) => { keep(now); onChange?.(now) },
  }
}
