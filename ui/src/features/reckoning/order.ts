import type { Verdict } from '../../api/reckoning'

/** What a stage is about. */
export type Here = { path: string; figures: string[] }

/** The lines of a reckoning as a stage needs them. */
export type Ordered = {
  /** What the stage is about, in its order. */
  figures: Verdict[]
  /** What needs attention here. */
  urgent: Verdict[]
  /** The rest, by the stage where it is worked on. */
  rest: { path: string; verdicts: Verdict[] }[]
}

/** Puts first what a stage asks. Without a stage all lines are of it. */
export function ordered(verdicts: Verdict[], here: Here | undefined, stages: string[]): Ordered {
  if (!here) return { figures: [], urgent: verdicts, rest: [] }
  const figures = here.figures.flatMap((key) => verdicts.filter((verdict) => verdict.key === key))
  const others = verdicts.filter((verdict) => !figures.includes(verdict))
  // The page of the machine is about all stages: what must stop stands there, wherever it is worked on.
  const isHere = (verdict: Verdict) => verdict.state !== 'plain'
    && (verdict.stage === here.path || (!stages.includes(here.path) && verdict.state === 'stop'))
  const left = others.filter((verdict) => !isHere(verdict))
  return {
    figures, urgent: others.filter(isHere),
    rest: stages.map((path) => ({ path, verdicts: left.filter(({ stage }) => stage === path) }))
      .filter((group) => group.verdicts.length > 0),
  }
}
