import { Link } from 'react-router'

import type { Machine } from '../../../../api/machines'
import { type SlotPlan, type ThoughtMove, useMovedCards } from '../../../../api/setup'
import { Button, Buttons } from '../../../../kit/Button'
import { Mark } from '../../../../kit/Mark'
import { NotSaved } from '../../../../kit/NotSaved'
import { Numbered } from './Numbered'
import { planned } from './planned'
import { stepsOf } from './steps'

type Props = { machine: Machine; plan: SlotPlan; moves: ThoughtMove[]; mayWrite: boolean; onDone: () => void }

/** What makes everything go together, as a list of what is done; and once it is done, one press writes it down. */
export function WhatToDo({ machine, plan, moves, mayWrite, onDone }: Props) {
  const moved = useMovedCards(machine.id)
  const { proposal, problems, solvable } = plan
  const steps = stepsOf(plan)
  const isThought = moves.length > 0
  if (plan.refused || !isThought && steps.length === 0 && solvable) return null
  const isImpossible = problems.some(({ kind }) => kind === 'impossible')
  const todo = planned(plan, moves, proposal.moves)
  const write = (withProposal: boolean) => {
    const cards = planned(plan, moves, withProposal ? proposal.moves : [])
    moved.mutate({ moves: cards, sets: withProposal ? proposal.sets : [] }, { onSuccess: onDone })
  }
  return (
    <section aria-label="What would make it go together">
      {isImpossible && <p><Mark kind="problem" /> There is no way to have all of these in. The smallest set that cannot live together:{' '}
        {problems.filter(({ kind }) => kind === 'impossible').map(({ cards }) => cards.join(', ')).join('; ')}.</p>}
      {solvable && steps.length > 0 && <>
        <h3>{problems.length > 0 ? 'What would make it go together' : 'What is open'}</h3>
        <Numbered>{steps.map((step) => <li key={step}>{step}</li>)}</Numbered>
        {proposal.notes.map((note) => <p key={note}><Mark kind="attention" /> {note}.</p>)}
      </>}
      {mayWrite && <Buttons>
        {solvable && proposal.moves.length + proposal.sets.length > 0 && todo.length + proposal.sets.length > 0 &&
          <Button $small $tone="main" isPending={moved.isPending} onPress={() => { write(true) }}>It is done so</Button>}
        {isThought && planned(plan, moves, []).length > 0 &&
          <Button $small isPending={moved.isPending} onPress={() => { write(false) }}>The cards sit as thought</Button>}
        {steps.length > 0 && <Link to={`/bench/${String(machine.id)}/slot-sheet`}>Print as a sheet</Link>}
      </Buttons>}
      <NotSaved error={moved.error} />
    </section>
  )
}
