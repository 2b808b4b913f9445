import { useQuery } from '@tanstack/react-query'
import { Link, useParams } from 'react-router'

import { type Lot, lotQuery, useChangeLot } from '../../api/lots'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { HistoryList } from '../../features/history/HistoryList'
import { amountOf } from '../../kit/amount'
import { Button } from '../../kit/Button'
import { EditRecord } from '../../kit/EditRecord'
import { Notice } from '../../kit/Notice'
import { Page, Title } from '../../kit/Page'
import { Facts, Part } from '../../kit/Part'
import { Skeleton } from '../../kit/Skeleton'
import { usePanel } from '../../kit/usePanel'
import { SharedIdentifiersOf } from '../../features/sharedidentifiers/SharedIdentifiers'
import { Pictures } from '../../features/pictures/Pictures'
import { LotForm } from './LotForm'
import { Things } from './Things'

/** One arrival: how it came, what was in it, what each thing cost, and whether it was worth it. */
export default function OneLot() {
  const id = Number(useParams().lotId)
  const lot = useQuery(lotQuery(id))
  if (lot.isPending) return <Page><Skeleton what="The lot" lines={14} /></Page>
  if (!lot.data)
    return <Page><Title>Arrivals</Title><Notice tone="stop" word="Not read.">{messageOf(lot.error)}</Notice></Page>
  return <Shown key={id} lot={lot.data} />
}

function Shown({ lot }: { lot: Lot }) {
  const mayEdit = useAccount()?.mayKeepTheRecord ?? false
  const [editing, setEditing] = usePanel('edit', 'keepers')
  const [telling, setTelling] = usePanel('history', 'all')
  return (
    <Page>
      <Title><Link to="/collection/arrivals">Arrivals</Link> / {lot.title}</Title>
      {editing ? <Edit lot={lot} onDone={() => { setEditing(false) }} /> : (
        <Part title="How it came" action={mayEdit && <Button $small onPress={() => { setEditing(true) }}>Edit</Button>}>
          <Facts>
            <dt>By</dt><dd>{lot.method}{lot.party && `, from ${lot.party}`}</dd>
            <dt>On</dt><dd>{lot.arrived || 'not known'}</dd>
            {lot.priceCents !== null && <><dt>Price</dt><dd>{amountOf(lot.priceCents)} {lot.currency}</dd></>}
            {lot.costs?.map(({ what, cents }) =>
              <Row key={what} what={what} text={`${amountOf(cents)} ${lot.currency}`} />)}
            {(lot.priceCents !== null || lot.costs?.length) && <><dt>Together</dt>
              <dd><strong>{lot.cost} {lot.currency}</strong></dd></>}
            {lot.condition && <><dt>As received</dt><dd>{lot.condition}</dd></>}
            {lot.powered && <><dt>Last ran</dt><dd>{lot.powered}</dd></>}
            {lot.cameWith && <><dt>Came with it</dt><dd>{lot.cameWith}</dd></>}
            {lot.note && <><dt>Note</dt><dd>{lot.note}</dd></>}
            <dt>Was it worth it</dt>
              <dd>{lot.worth.verdict ? <strong>{lot.worth.verdict}</strong>
                : 'No value is known yet: say of a thing what it is worth today.'}</dd>
          </Facts>
        </Part>
      )}
      <SharedIdentifiersOf of={{ kind: 'lot', id: lot.id }} />
      <Things lot={lot} />
      <Pictures owner={{ lot: lot.id }} />
      <Part title="History"
        action={<Button $small aria-expanded={telling} onPress={() => { setTelling(!telling) }}>
          {telling ? 'Hide the history' : 'Show the history'}
        </Button>}>
        {telling && <HistoryList of={{ lot: lot.id }} />}
      </Part>
    </Page>
  )
}

function Row({ what, text }: { what: string; text: string }) {
  return <><dt>{what}</dt><dd>{text}</dd></>
}

function Edit({ lot, onDone }: { lot: Lot; onDone: () => void }) {
  const change = useChangeLot(lot.id)
  const names = { title: 'what arrived', method: 'how', arrived: 'when', party: 'from', condition: 'condition',
    note: 'note', items: 'things' }
  return (
    <EditRecord keptAs={`lot ${String(lot.id)}`}
      record={lot} change={change} newerIn={({ lot: newer }) => newer && { ...lot, ...newer }} names={names}
      onDone={onDone}>
      {(form) => <LotForm start={lot} action="Save" {...form} />}
    </EditRecord>
  )
}
