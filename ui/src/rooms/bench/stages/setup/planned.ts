import type { Schemas } from '../../../../api/client'
import type { SlotPlan, ThoughtMove } from '../../../../api/setup'

/** The cards that sit elsewhere once it is done as thought, and as proposed. One that is thought out, or is not in the
  machine, is none: that is a move of the board, which is written down by itself. */
export function planned({ cards }: SlotPlan, thought: ThoughtMove[], proposed: { assemblyId: number; to: string }[]):
  Schemas['MovedCard'][] {
  return cards.filter(({ fitted, onBoard }) => fitted && !onBoard).flatMap(({ assemblyId, version }) => {
    const slot = proposed.find((one) => one.assemblyId === assemblyId)?.to
      ?? thought.find((one) => one.assemblyId === assemblyId)?.slot
    return slot ? [{ assemblyId, version, slot }] : []
  })
}
