/** A weight with its sign: +3, 0, -1. */
export const weightWord = (weight: number) => (weight > 0 ? `+${String(weight)}` : String(weight))

/** How much a piece of evidence says of an explanation; 0 where it says nothing. */
export const weightOf = (weights: { hypothesisId: number; weight: number }[], hypothesis: number) =>
  weights.find(({ hypothesisId }) => hypothesisId === hypothesis)?.weight ?? 0
