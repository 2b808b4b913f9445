import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { useAccount } from '../../api/session'
import { type Offer, useChangeOffer, useTakeOffer, useVoidOffer } from '../../api/wanted'
import { Pictures } from '../../features/pictures/Pictures'
import { amountOf, readAmounts } from '../../kit/amount'
import { Button, Buttons } from '../../kit/Button'
import { EditRecord } from '../../kit/EditRecord'
import { Choice, Field, FieldGrid, Tick } from '../../kit/Field'
import { NotSaved } from '../../kit/NotSaved'
import { Faint } from '../../kit/Page'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { color, space } from '../../theme'
import { OfferForm } from './OfferForm'
import { OfferWeighed } from './OfferWeighed'

/** An offer, with what it amounts to; taken, it becomes a lot. */
export function OneOffer({ offer, currency }: { offer: Offer; currency?: string }) {
  const [doing, setDoing] = useState<'' | 'edit' | 'take' | 'pictures'>('')
  const change = useChangeOffer(offer.id)
  const voiding = useVoidOffer()
  const mayTake = useAccount()?.mayKeepTheRecord ?? false
  const isOpen = offer.state === 'open' && !offer.lotId
  if (doing === 'edit') {
    return (
      <EditRecord keptAs={`offer ${String(offer.id)}`} record={offer} change={change} newerIn={(newer) => newer.offer}
        names={names} onDone={() => { setDoing('') }}>
        {(form) => <OfferForm start={offer} action="Save" currency={currency} {...form} />}
      </EditRecord>
    )
  }
  const facts = [offer.source, offer.askingCents !== undefined && `asked ${amountOf(offer.askingCents)} ${currency ?? ''}`,
    offer.limitCents !== undefined && `limit ${amountOf(offer.limitCents)} ${currency ?? ''}`, `seen ${offer.seenOn ?? ''}`,
    offer.endsOn && `ends ${offer.endsOn}`].filter(Boolean).join('; ')
  return (
    <Framed id={`offer-${String(offer.id)}`} tabIndex={-1} aria-label={offer.title}>
      <h3>{offer.title}</h3>
      <p><Faint>{facts}</Faint></p>
      {offer.text && <p>{offer.text}</p>}
      {offer.lotId ? <p>It became <Link to={`/collection/arrivals/${String(offer.lotId)}`}>a lot</Link>.</p>
        : isOpen ? <OfferWeighed weighed={offer.weighed} currency={currency} /> : <p><strong>{offer.state}</strong></p>}
      {offer.note && <p>{offer.note}</p>}
      {doing === 'take' ? <TakeForm offer={offer} currency={currency} onDone={() => { setDoing('') }} /> : (
        <Buttons>
          {isOpen && mayTake && <Button $small onPress={() => { setDoing('take') }}
            aria-label={`It is here: ${offer.title}`}>It is here</Button>}
          <Button $small $tone="quiet" aria-label={`Pictures of ${offer.title}`}
            onPress={() => { setDoing(doing === 'pictures' ? '' : 'pictures') }}>Pictures</Button>
          <Button $small $tone="quiet" aria-label={`Edit ${offer.title}`} onPress={() => { setDoing('edit') }}>Edit</Button>
          {!offer.lotId && <Button $small $tone="quiet" aria-label={`Delete ${offer.title}`} isPending={voiding.isPending}
            onPress={() => { voiding.mutate(offer) }}>Delete</Button>}
        </Buttons>
      )}
      {doing === 'pictures' && <Pictures owner={{ offer: offer.id }} />}
      <NotSaved error={voiding.error} />
    </Framed>
  )
}

/** Makes a lot of an offer that is here: what it cost, and what of it was looked for. */
function TakeForm({ offer, currency, onDone }: { offer: Offer; currency?: string; onDone: () => void }) {
  const take = useTakeOffer(offer.id)
  const [method, setMethod] = useState<'purchase' | 'auction' | 'gift' | 'exchange'>('purchase')
  const [found, setFound] = useState(offer.weighed.hits.filter(({ doubt }) => !doubt).map(({ wantId }) => wantId))
  const [wrong, setWrong] = useState<Record<string, string>>({})
  return (
    <RecordForm keptAs={null} error={take.error} isPending={take.isPending} action="Enter the lot" onCancel={onDone}
      wrong={wrong} onSubmit={(data) => {
        const amounts = readAmounts({ priceCents: textOf(data, 'priceCents') })
        setWrong(amounts.wrong)
        if (Object.keys(amounts.wrong).length > 0) return
        take.mutate({ version: offer.version, method, found, arrived: textOf(data, 'arrived'),
          priceCents: amounts.cents.priceCents ?? undefined }, { onSuccess: onDone })
      }}>
      <FieldGrid>
        <Choice label="How it came" value={method} onChange={setMethod} options={[{ value: 'purchase', text: 'bought' },
          { value: 'auction', text: 'at an auction' }, { value: 'gift', text: 'a gift' }, { value: 'exchange', text: 'exchanged' }]} />
        <Field label={`Price${currency ? `, ${currency}` : ''}`} name="priceCents" inputMode="decimal"
          defaultValue={amountOf(offer.askingCents)} />
        <Field label="Arrived" name="arrived" mono placeholder="today" />
      </FieldGrid>
      {offer.weighed.hits.length > 0 && <fieldset>
        <legend>Found, and looked for no more</legend>
        {offer.weighed.hits.map(({ wantId, what }) => (
          <Tick key={wantId} label={what} isOn={found.includes(wantId)} onChange={(isOn) => {
            setFound((before) => isOn ? [...before, wantId] : before.filter((id) => id !== wantId))
          }} />
        ))}
      </fieldset>}
    </RecordForm>
  )
}

const Framed = styled.article`
  display: flex;
  flex-direction: column;
  gap: 2px;
  padding: ${space(1)} 0;
  border-bottom: 1px solid ${color.line};
  h3 { font-size: 16px; }
`

const names: Partial<Record<keyof Offer, string>> = { title: 'what is offered', text: 'the offer', source: 'who offers it',
  seenOn: 'seen on', endsOn: 'ends on', state: 'state', note: 'note' }
