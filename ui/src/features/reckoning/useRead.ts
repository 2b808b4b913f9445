import { useState } from 'react'

import type { Verdict } from '../../api/reckoning'

const telling = ({ value, state }: Verdict) => `${state} ${value}`

/** Remembers which verdicts changed since they were last looked at. The first ones are no news. */
export function useRead(verdicts: Verdict[]) {
  const [seen, setSeen] = useState<Record<string, string>>()
  if (!seen && verdicts.length > 0) setSeen(Object.fromEntries(verdicts.map((v) => [v.key, telling(v)])))
  return {
    isNews: (verdict: Verdict) => seen !== undefined && seen[verdict.key] !== telling(verdict),
    read: (verdict: Verdict) => {
      setSeen((before) => (before?.[verdict.key] === telling(verdict) ? before : { ...before,
        [verdict.key]: telling(verdict) }))
    },
  }
}
