import type { Stretch } from '../../../../api/assemblies'

/** What is taken of lines that two people changed differently. */
export type Choice = 'mine' | 'theirs' | 'both'
export type Choices = Record<string, Choice>

/** Names a stretch by what stands there, not by number: typing on may bring and take away conflicts. */
export const spot = ({ base, mine, theirs }: Stretch) => JSON.stringify([base, mine, theirs])

/** The conflicts nobody has decided yet. */
export const undecided = (stretches: Stretch[], choices: Choices) =>
  stretches.filter((stretch) => stretch.kind === 'conflict' && !choices[spot(stretch)])

/** The same choice for every conflict. */
export const everywhere = (stretches: Stretch[], choice: Choice): Choices =>
  Object.fromEntries(stretches.filter(({ kind }) => kind === 'conflict').map((stretch) => [spot(stretch), choice]))

/** The merged text, with each conflict as it was decided. */
export function merged(stretches: Stretch[], choices: Choices): string {
  return stretches.flatMap((stretch) => {
    const taken = stretch.kind === 'conflict' ? choices[spot(stretch)] : stretch.kind
    if (taken === 'theirs') return stretch.theirs
    if (taken === 'both') return [...stretch.mine, ...stretch.theirs]
    return stretch.mine
  }).join('\n')
}
