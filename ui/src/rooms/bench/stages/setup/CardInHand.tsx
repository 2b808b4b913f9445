import { useState } from 'react'
import { Link } from 'react-router'

import type { SlotPlan } from '../../../../api/setup'
import { Button, Buttons } from '../../../../kit/Button'
import { Choice } from '../../../../kit/Field'
import { Faint } from '../../../../kit/Page'
import { InHand } from '../../../../kit/Part'
import { spotAddress } from '../../../../kit/spot'

type Props = { card: SlotPlan['cards'][number]; plan: SlotPlan; machineId: number; onMove: (slot: string) => void
  onLeave: () => void }

/** A card that somebody took in hand: what it takes,
  and where else it could be thought. A slot that is taken is refused. */
export function CardInHand({ card, plan, machineId, onMove, onLeave }: Props) {
  const free = plan.rows.flatMap(({ slots }) => slots).filter(({ cards }) => cards.length === 0).map(({ id }) => id)
  const [to, setTo] = useState(free[0] ?? '')
  return (
    <InHand aria-label={card.name}>
      <h3><Link to={spotAddress(machineId, { assembly: card.assemblyId, line: 1 })}>{card.name}</Link></h3>
      <p>{card.slot ? `In slot ${card.slot}` : 'In no slot that is known'}
        {card.needs.map(({ resource, now, choices, shared }) =>
          `; ${resource} ${now || 'not noted'}${choices.length > 1 ? ` of ${choices.join(', ')}` : ''}${shared ? ', may be shared' : ''}`)}
        {card.draw.map(({ rail, amperes }) => `; draws ${String(Number(amperes.toFixed(2)))} A of ${rail}`)}</p>
      <Buttons>
        {free.length > 0 ? <>
          <Choice label="A free slot" value={to} onChange={setTo} options={free.map((id) => ({ value: id, text: id }))} />
          <Button $small $tone="main" isDisabled={!to} onPress={() => { onMove(to) }}>Think it there</Button>
        </> : <Faint>No slot is free.</Faint>}
        <Button $small onPress={() => { onMove('') }}>Think it out</Button>
        <Button $small $tone="quiet" onPress={onLeave}>Leave it</Button>
      </Buttons>
    </InHand>
  )
}
