import { useRef } from 'react'
import { useDrag } from 'react-aria/useDrag'
import { useDrop } from 'react-aria/useDrop'
import styled from 'styled-components'

import type { Schemas } from '../../../../api/client'
import type { SlotPlan } from '../../../../api/setup'
import { Mark } from '../../../../kit/Mark'
import { Scroll } from '../../../../kit/ListTable'
import { color, font, radius, space } from '../../../../theme'

type Card = SlotPlan['cards'][number]
type Slot = Schemas['PlanSlot']
type Props = { plan: SlotPlan; inHand: number | null; onTake: (id: number) => void
  onMove: (id: number, slot: string) => void }

const kindOfDrag = 'frugal-heron-card'

/** The backplane as it stands in the machine, row by row, with the way of the bus through it. Cards are dragged,
  or taken in
  hand by a press. */
export function BackplaneDrawing({ plan, inHand, onTake, onMove }: Props) {
  const cardOf = (id: number) => plan.cards.find(({ assemblyId }) => assemblyId === id)
  const taken = { inHand, onTake, onMove, cardOf }
  const out = plan.cards.filter(({ slot, onBoard }) => !slot && !onBoard)
  return (
    <Case aria-label="Slots as they stand" role="group">
      {plan.rows.map((row, i) => (
        <div key={i}>
          {row.chassis && row.chassis !== plan.rows[i - 1]?.chassis && <Chassis>{row.chassis}</Chassis>}
          <RowName>{[row.name, row.kind].filter(Boolean).join(' · ') || 'kind not known'}{wayOf(row.slots)}</RowName>
          <Scroll>
            <Slots>{row.slots.map((slot) => <SlotInRow key={slot.id} slot={slot} {...taken} />)}</Slots>
          </Scroll>
        </div>
      ))}
      {out.length > 0 && <div>
        <RowName>in no slot that is known</RowName>
        <Slots>{out.map((card) => <li key={card.assemblyId}><CardBlock card={card} {...taken} /></li>)}</Slots>
      </div>}
    </Case>
  )
}

/** Which way the bus runs through a row, as far as its chain tells. */
function wayOf(slots: Slot[]) {
  const places = slots.map(({ chain }) => chain).filter((n) => n > 0)
  const [first, second] = [places[0], places[1]]
  if (first === undefined || second === undefined) return ''
  return second > first ? ' · the bus runs →' : ' · the bus runs ←'
}

type Taken = Pick<Props, 'inHand' | 'onTake' | 'onMove'> & { cardOf: (id: number) => Card | undefined }

function SlotInRow({ slot, ...taken }: { slot: Slot } & Taken) {
  const box = useRef<HTMLLIElement>(null)
  const { dropProps, isDropTarget } = useDrop({ ref: box,
    getDropOperation: (types) => types.has(kindOfDrag) && slot.cards.length === 0 ? 'move' : 'cancel',
    onDrop: ({ items }) => {
      for (const item of items)
        if (item.kind === 'text') void item.getText(kindOfDrag).then((id) => { taken.onMove(Number(id), slot.id) })
    } })
  const cards = slot.cards.flatMap((id) => taken.cardOf(id) ?? [])
  return (
    <li ref={box} {...(slot.cards.length === 0 && dropProps)} data-over={isDropTarget || undefined}>
      <SlotName>{slot.id}{slot.chain > 0 && <span title="Its place in the order of the bus"> ⋅ bus {slot.chain}</span>}</SlotName>
      {cards.map((card) => card.slot === slot.id ? <CardBlock key={card.assemblyId} card={card} {...taken} />
        : <Covered key={card.assemblyId}>covered by {card.name}</Covered>)}
      {cards.length > 1 && <small><Mark kind="problem" /> two in one slot</small>}
      {cards.length === 0 && <Empty aria-label={`Slot ${slot.id}`} $asks={slot.filler}>
        {slot.filler ? <><Mark kind="attention" /> needs a filler</> : 'empty'}</Empty>}
    </li>
  )
}

function CardBlock({ card, inHand, onTake }: { card: Card } & Taken) {
  // By keyboard a card is taken in hand, and a free slot chosen below.
  const { dragProps } = useDrag({ hasDragButton: true,
    getItems: () => [{ [kindOfDrag]: String(card.assemblyId), 'text/plain': card.name }] })
  return (
    <Block {...dragProps} type="button" aria-pressed={inHand === card.assemblyId} $wrong={card.wrong}
      onClick={() => { onTake(card.assemblyId) }}>
      <b>{card.name}</b>
      {card.needs.map(({ resource, now, choices }, i) => <small key={i}>{resource} {now || `${choices.join(' or ')}?`}</small>)}
      {card.wrong && <small><Mark kind="problem" /> does not go together</small>}
      {!card.fitted && <small>thought in</small>}
    </Block>
  )
}

const Case = styled.div`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  padding: ${space(1)};
  border: 1px solid ${color.edge};
  background: ${color.paper};
`
const Chassis = styled.h3`
  font-size: 16px;
`
const RowName = styled.p`
  color: ${color.faint};
  font-size: 14px;
`
const Slots = styled.ol`
  display: flex;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
  min-width: min-content;
  li { display: flex; flex-direction: column; gap: 4px; width: 122px; flex: none; }
  li[data-over] { outline: 2px solid ${color.slate}; }
`
const SlotName = styled.span`
  color: ${color.faint};
  font: 13px ${font.mono};
`
const Empty = styled.span<{ $asks: boolean }>`
  flex: 1;
  min-height: 56px;
  padding: ${space(1)};
  border: 1px dashed ${({ $asks }) => $asks ? color.amber : color.edge};
  border-radius: ${radius};
  color: ${({ $asks }) => $asks ? color.amber : color.faint};
  font-size: 14px;
`
const Covered = styled(Empty).attrs({ $asks: false })`
  border-style: solid;
`
const Block = styled.button<{ $wrong: boolean }>`
  display: flex;
  flex: 1;
  flex-direction: column;
  gap: 2px;
  min-height: 56px;
  padding: ${space(1)};
  border: 1px solid ${({ $wrong }) => $wrong ? color.rust : color.slate};
  border-radius: ${radius};
  background: ${color.sheet};
  color: ${color.ink};
  font: inherit;
  line-height: 1.3;
  text-align: left;
  overflow-wrap: anywhere;
  cursor: grab;
  b { font-size: 14px; font-weight: 600; }
  small { color: ${color.faint}; font-size: 13px; }
  &[aria-pressed='true'] { background: ${color.slateGround}; outline: 2px solid ${color.slate}; }
`
