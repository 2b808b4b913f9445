import { useEffect, useState } from 'react'

/** The value as it was when it last did not change for a pause of this many milliseconds. */
export function useSettled<Value>(value: Value, pause: number): Value {
  const [settled, setSettled] = useState(value)
  useEffect(() => {
    const timer = setTimeout(() => { setSettled(value) }, pause)
    return () => { clearTimeout(timer) }
  }, [value, pause])
  return settled
}
