import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { type SlotPlan, slotPlanQuery, type ThoughtMove, useLayOutSlots } from '../../../../api/setup'
import { Button, Buttons } from '../../../../kit/Button'
import { EditRecord } from '../../../../kit/EditRecord'
import { Mark } from '../../../../kit/Mark'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { Skeleton } from '../../../../kit/Skeleton'
import { usePanel } from '../../../../kit/usePanel'
import { BackplaneDrawing } from './BackplaneDrawing'
import { BackplaneForm } from './BackplaneForm'
import { CardInHand } from './CardInHand'
import { Rails } from './Rails'
import { WhatToDo } from './WhatToDo'

/** What sits in which slot, whether that goes together,
  and what would: cards can be thought elsewhere before they move. */
export function SlotsPart({ machine, mayWrite }: { machine: Machine; mayWrite: boolean }) {
  const [moves, setMoves] = useState<ThoughtMove[]>([])
  const [inHand, setInHand] = useState<number | null>(null)
  const [editing, setEditing] = usePanel('slots')
  const change = useLayOutSlots(machine.id)
  const standing = useQuery(slotPlanQuery(machine.id, []))
  const told = useQuery(slotPlanQuery(machine.id, moves))
  // Where what is thought cannot be planned, what stands stays in sight.
  const plan = told.data ?? standing.data
  const move = (assemblyId: number, slot: string) => {
    setMoves((before) => [...before.filter((one) => one.assemblyId !== assemblyId), { assemblyId, slot }])
  }
  const card = plan?.cards.find(({ assemblyId }) => assemblyId === inHand)
  const isEmpty = plan?.rows.length === 0 && plan.cards.every(({ onBoard }) => onBoard)
  return (
    <Part title="Slots" faint="What goes together, and what would have to move"
      action={mayWrite && plan && !editing && <Button $small onPress={() => { setEditing(true) }}>
        {plan.backplane.layout ? 'Change the backplane' : 'Write the backplane down'}</Button>}>
      {told.error && <Notice tone="stop" word="Not read.">{messageOf(told.error)}</Notice>}
      {!plan && !told.error && <Skeleton what="Slots" lines={8} />}
      {editing && plan && <EditRecord keptAs={`backplane of ${String(machine.id)}`} record={plan.backplane} change={change}
        newerIn={(newer) => newer.backplane} names={{ layout: 'layout', note: 'note' }}
        onDone={() => { setEditing(false) }}>
        {(form) => <BackplaneForm start={plan.backplane} offered={plan.offered} {...form} />}
      </EditRecord>}
      {plan && isEmpty && !editing && <p><Faint>No slot is known, and no card sits in one. The record of the main board in the
        library can say them, as <code>gives 5 slots | 8-bit</code>; or write the backplane down.</Faint></p>}
      {plan && !isEmpty && (
        <>
          {plan.refused ? <Notice tone="attention" word="No plan.">{plan.refused}</Notice>
            : <p role="status">{plan.problems.length === 0
              ? <><Mark kind="done" /> Nothing that is known speaks against it{moves.length > 0 && ', as it is thought'}.</>
              : <><Mark kind={plan.ok ? 'attention' : 'problem'} /> {moves.length > 0 ? 'As it is thought: '
                : 'As it stands: '}{toldOf(plan).join('; ')}.</>}</p>}
          <BackplaneDrawing plan={plan} inHand={inHand} onTake={setInHand} onMove={move} />
          {card && <CardInHand key={card.assemblyId} card={card} plan={plan} machineId={machine.id}
            onMove={(slot) => { move(card.assemblyId, slot) }} onLeave={() => { setInHand(null) }} />}
          {moves.length > 0 && <Buttons>
            <Button $small onPress={() => { setMoves([]); setInHand(null) }}>As it stands again</Button>
            <Faint>{moves.length} {moves.length === 1 ? 'card is' : 'cards are'} thought elsewhere; nothing is written down
              yet.</Faint>
          </Buttons>}
          <WhatToDo machine={machine} plan={plan} moves={moves} mayWrite={mayWrite} onDone={() => { setMoves([]) }} />
          <Rails plan={plan} />
          {plan.remarks.length > 0 && <details>
            <summary>What no record says ({plan.remarks.length})</summary>
            <ul>{plan.remarks.map((remark) => <li key={remark}>{remark}</li>)}</ul>
          </details>}
        </>
      )}
    </Part>
  )
}

/** What is wrong, in words; slots that want a filler are told together. */
function toldOf({ problems, rows }: SlotPlan): string[] {
  const fillers = rows.flatMap(({ slots }) => slots).filter(({ filler }) => filler).map(({ id }) => id)
  return [...problems.filter(({ kind, cards }) => kind !== 'chain' || cards.length > 1).map(({ detail }) => detail),
    ...fillers.length > 0 ? [`the chain needs a filler in slot ${fillers.join(', ')}`] : []]
}
