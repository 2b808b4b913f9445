import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { collectionQuery } from '../../api/collection'
import { messageOf } from '../../api/problem'
import { offersQuery, useAddOffer, useAddWant, useChangeWant, useVoidWant, type Want,
  wantsQuery } from '../../api/wanted'
import { amountOf } from '../../kit/amount'
import { Button } from '../../kit/Button'
import { EditRecord } from '../../kit/EditRecord'
import { Figure, Scroll, StackedTable } from '../../kit/ListTable'
import { Notice } from '../../kit/Notice'
import { NotSaved } from '../../kit/NotSaved'
import { Faint, Page, PageHead, Title } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { useNamedRow } from '../../kit/useNamedRow'
import { usePanel } from '../../kit/usePanel'
import { OfferForm } from './OfferForm'
import { OneOffer } from './OneOffer'
import { WantForm } from './WantForm'

/** What is looked for, perhaps for years, and what is offered: each offer beside what it may hold. */
export default function Wanted() {
  const wants = useQuery(wantsQuery)
  const offers = useQuery(offersQuery)
  const [panel, setPanel] = useState('')
  const [adding, setAdding] = usePanel('want')
  const [noting, setNoting] = usePanel('offer')
  const add = useAddWant()
  const note = useAddOffer()
  const currency = useQuery(collectionQuery).data?.currency
  useNamedRow('offer')
  const open = wants.data?.filter(({ state }) => state === 'open') ?? []
  const ended = wants.data?.filter(({ state }) => state !== 'open') ?? []
  const shown = panel ? [...open, ...ended] : open
  return (
    <Page>
      <PageHead>
        <Title><Link to="/stores">Stores</Link> / Wanted</Title>
        <Faint>What is looked for, perhaps for years, and what is offered before it is bought.</Faint>
      </PageHead>
      <Part title="Offers" faint="Beside what is looked for, what is held, and what was paid before"
        action={!noting && <Button $small $tone="main" onPress={() => { setNoting(true) }}>Note an offer</Button>}>
        {noting && <OfferForm keptAs="new offer" action="Save" error={note.error} isPending={note.isPending}
          currency={currency} onCancel={() => { setNoting(false) }}
          onSubmit={(fields) => { note.mutate(fields, { onSuccess: () => { setNoting(false) } }) }} />}
        {offers.error && <Notice tone="stop" word="Not listed.">{messageOf(offers.error)}</Notice>}
        {offers.data?.map((offer) => <OneOffer key={offer.id} offer={offer} currency={currency} />)}
        {offers.data?.length === 0 && !noting && <p><Faint>Nothing is offered. Paste an offer here before you bid: it is
          compared at once.</Faint></p>}
      </Part>
      <Part title="Looked for" faint={open.length > 0 ? `${String(open.length)} open` : ''}
        action={!adding && <Button $small onPress={() => { setAdding(true) }}>Write down what is wanted</Button>}>
        {adding && <WantForm keptAs="new want" action="Save" error={add.error} isPending={add.isPending} currency={currency}
          onCancel={() => { setAdding(false) }}
          onSubmit={(fields) => { add.mutate(fields, { onSuccess: () => { setAdding(false) } }) }} />}
        {wants.error && <Notice tone="stop" word="Not listed.">{messageOf(wants.error)}</Notice>}
        {shown.length > 0 && (
          <Scroll>
            <StackedTable>
              <thead><tr><th>What</th><th>Kind</th><th>Known in offers by</th><th>For</th><th>Since</th>
                <Figure as="th">At most{currency && `, ${currency}`}</Figure>
                <th><span className="only-read">Change</span></th></tr></thead>
              <tbody>{shown.map((want) => <OneWant key={want.id} want={want} currency={currency} />)}</tbody>
            </StackedTable>
          </Scroll>
        )}
        {wants.data && open.length === 0 && !adding && <p><Faint>Nothing is looked for.</Faint></p>}
        {ended.length > 0 && !panel && <p><Button $small $tone="quiet" onPress={() => { setPanel('all') }}>
          {ended.length} found or given up</Button></p>}
      </Part>
    </Page>
  )
}

function OneWant({ want, currency }: { want: Want; currency?: string }) {
  const [isEditing, setEditing] = useState(false)
  const change = useChangeWant(want.id)
  const voiding = useVoidWant()
  if (isEditing) {
    return (
      <tr><td colSpan={7}>
        <EditRecord keptAs={`want ${String(want.id)}`} record={want} change={change} newerIn={(newer) => newer.want}
          names={names} onDone={() => { setEditing(false) }}>
          {(form) => <WantForm start={want} action="Save" currency={currency} {...form} />}
        </EditRecord>
      </td></tr>
    )
  }
  return (
    <tr>
      <td data-head="What">{want.what}{want.state !== 'open' && <><br /><Faint>{want.state}: {want.note}</Faint></>}</td>
      <td data-head="Kind">{want.kind}</td>
      <td data-head="Known by">{want.alerts?.join('; ')}</td>
      <td data-head="For">{want.machineId ? <Link to={`/bench/${String(want.machineId)}`}>{want.accession}</Link> : 'any'}</td>
      <td data-head="Since">{want.since}</td>
      <Figure data-head="At most">{amountOf(want.mostCents)}</Figure>
      <td>
        <Button $small $tone="quiet" aria-label={`Edit ${want.what}`} onPress={() => { setEditing(true) }}>Edit</Button>
        <Button $small $tone="quiet" aria-label={`Delete ${want.what}`} isPending={voiding.isPending}
          onPress={() => { voiding.mutate(want) }}>Delete</Button>
        <NotSaved error={voiding.error} />
      </td>
    </tr>
  )
}

const names: Partial<Record<keyof Want, string>> = { what: 'what', kind: 'kind', alerts: 'known in offers by',
  since: 'since', state: 'state', note: 'note' }
