import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { collectionQuery } from '../../api/collection'
import { messageOf } from '../../api/problem'
import { needsQuery, type Order, ordersQuery, useAddOrder, useChangeOrder, useVoidOrder } from '../../api/stores'
import { amountOf } from '../../kit/amount'
import { Button } from '../../kit/Button'
import { EditRecord } from '../../kit/EditRecord'
import { Figure, Scroll, StackedTable } from '../../kit/ListTable'
import { Mark } from '../../kit/Mark'
import { Notice } from '../../kit/Notice'
import { NotSaved } from '../../kit/NotSaved'
import { Faint, Page, PageHead, Title } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { useFilters } from '../../kit/useFilters'
import { useNamedRow } from '../../kit/useNamedRow'
import { usePanel } from '../../kit/usePanel'
import { ArrivalForm } from './ArrivalForm'
import { OrderForm } from './OrderForm'

/** What was ordered, what came of it, and which jobs go on with it. */
export default function Orders() {
  const orders = useQuery(ordersQuery)
  const needs = useQuery(needsQuery)
  const [adding, setAdding] = usePanel('order')
  const [parameters] = useFilters()
  const add = useAddOrder()
  const currency = useQuery(collectionQuery).data?.currency
  useNamedRow('order')
  const short = parameters.get('fill') === 'short' ? needs.data?.toOrder : []
  return (
    <Page>
      <PageHead>
        <Title><Link to="/stores">Stores</Link> / Orders</Title>
        <Faint>What was ordered, what came of it, and which jobs go on with it.</Faint>
        {!adding && <Button $tone="main" onPress={() => { setAdding(true) }}>Write down an order</Button>}
      </PageHead>
      {adding && short && <OrderForm keptAs="new order" action="Save" error={add.error} isPending={add.isPending}
        currency={currency} lines={short.map(({ what, count }) => ({ what,
          count }))} onCancel={() => { setAdding(false) }}
        onSubmit={(fields) => { add.mutate(fields, { onSuccess: () => { setAdding(false) } }) }} />}
      {orders.error && <Notice tone="stop" word="Not listed.">{messageOf(orders.error)}</Notice>}
      {orders.data?.map((order) => <OneOrder key={order.id} order={order} currency={currency}
        goesOn={needs.data?.unblocks.find(({ orderId }) => orderId === order.id)?.jobs ?? []} />)}
      {orders.data?.length === 0 && !adding && <p>Nothing is on order. What is short stands in{' '}
        <Link to="/stores/needs">What jobs need</Link>.</p>}
    </Page>
  )
}

type Jobs = { jobId: number; job: string; machineId: number; accession: string; with: number[] }[]

function OneOrder({ order, currency, goesOn }: { order: Order; currency?: string; goesOn: Jobs }) {
  const [isEditing, setEditing] = useState(false)
  const [arriving, setArriving] = useState<number>()
  const change = useChangeOrder(order.id)
  const voiding = useVoidOrder()
  if (isEditing) {
    return (
      <EditRecord keptAs={`order ${String(order.id)}`} record={order} change={change} newerIn={(newer) => newer.order}
        names={names} onDone={() => { setEditing(false) }}>
        {(form) => <OrderForm start={order} lines={order.lines} action="Save" currency={currency} {...form} />}
      </EditRecord>
    )
  }
  const called = `${order.supplier}${order.number && `, ${order.number}`}`
  return (
    <div id={`order-${String(order.id)}`} tabIndex={-1}>
    <Part title={`Order of ${called}`} faint={<><Mark kind={order.lateDays > 0 ? 'attention' : order.isOpen ? 'later' : 'done'} />{' '}
      {[`ordered ${order.orderedOn}`, order.isOpen ? order.dueOn ? `due ${order.dueOn}` : 'nobody said when it comes'
        : 'all is here', order.lateDays > 0 && `${String(order.lateDays)} days late`].filter(Boolean).join('; ')}</>}
      action={<>
        <Button $small $tone="quiet" aria-label={`Edit the order of ${called}`} onPress={() => { setEditing(true) }}>Edit</Button>
        <Button $small $tone="quiet" aria-label={`Delete the order of ${called}`} isPending={voiding.isPending}
          onPress={() => { voiding.mutate(order) }}>Delete</Button>
      </>}>
      <Scroll>
        <StackedTable>
          <thead><tr><th>What</th><Figure as="th">Ordered</Figure><Figure as="th">Here</Figure><Figure as="th">To come</Figure>
            <Figure as="th">One{currency && `, ${currency}`}</Figure><th>Set aside for</th><td /></tr></thead>
          <tbody>{order.lines.map((line) => (
            <tr key={line.n}>
              <td>{line.what}{line.dead > 0 && <div><Mark kind="attention" /> {line.dead} came dead: back to the supplier</div>}</td>
              <Figure>{line.count}</Figure><Figure>{line.arrived}</Figure><Figure>{line.toCome}</Figure>
              <Figure>{amountOf(line.priceCents)}</Figure>
              <td>{order.setAside.filter(({ line: n }) => n === line.n).map((aside) => <div key={aside.id}>{aside.count} for{' '}
                <Link to={`/bench/${String(aside.machineId)}/make-good`}>{aside.accession}: {aside.job}</Link></div>)}</td>
              <td>{line.toCome > 0 && arriving === undefined && <Button $small aria-label={`Book what came: ${line.what}`}
                onPress={() => { setArriving(line.n) }}>Book what came</Button>}</td>
            </tr>
          ))}</tbody>
        </StackedTable>
      </Scroll>
      {order.lines.filter(({ n }) => n === arriving).map((line) => <ArrivalForm key={line.n} order={order} line={line}
        onDone={() => { setArriving(undefined) }} />)}
      {goesOn.length > 0 && <p>Lets go on: {goesOn.map((job, i) => <span key={job.jobId}>{i > 0 && '; '}
        <Link to={`/bench/${String(job.machineId)}/make-good`}>{job.accession}: {job.job}</Link>
        {job.with.length > 0 && <Faint> with {job.with.length === 1 ? 'another order' : `${String(job.with.length)} other orders`}</Faint>}
      </span>)}</p>}
      {order.note && <p>{order.note}</p>}
      <NotSaved error={voiding.error} />
    </Part>
    </div>
  )
}

const names: Partial<Record<keyof Order, string>> = { supplier: 'supplier', number: 'number', orderedOn: 'ordered on',
  dueOn: 'due on', note: 'note' }
