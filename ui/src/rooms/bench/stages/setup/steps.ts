import type { SlotPlan } from '../../../../api/setup'

/** The steps of a proposal in words. */
export function stepsOf({ proposal, fillers }: SlotPlan): string[] {
  return [
    ...proposal.moves.map(({ card, from, to }) => from ? `Move ${card} from slot ${from} to slot ${to}`
      : `${card} goes into slot ${to}`),
    ...proposal.sets.map(({ card, resource, from, to, ways }) => `Set ${card} to ${resource} ${to}${from ? `, from ${from}`
      : '; how it is set nobody noted'}${ways.length > 0 ? `: ${ways.map(({ setting, at }) => `${setting} at ${at}`).join(' or ')}`
      : ''}`),
    ...fillers.length > 0 ? [`A filler in slot ${fillers.join(', ')}`] : [],
  ]
}
