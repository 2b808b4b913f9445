import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { Fragment, useState } from 'react'
import { Link } from 'react-router'

import { collectionQuery } from '../../api/collection'
import { messageOf } from '../../api/problem'
import { type Stock, stockQuery, useAddStock, useChangeStock, useVoidStock } from '../../api/stores'
import { Pictures } from '../../features/pictures/Pictures'
import { amountOf } from '../../kit/amount'
import { Button, Buttons } from '../../kit/Button'
import { EditRecord } from '../../kit/EditRecord'
import { ListHead } from '../../kit/ListHead'
import { Figure, Scroll, StackedTable } from '../../kit/ListTable'
import { Mark } from '../../kit/Mark'
import { Notice } from '../../kit/Notice'
import { NotSaved } from '../../kit/NotSaved'
import { Faint, Page } from '../../kit/Page'
import { useFilters } from '../../kit/useFilters'
import { usePanel } from '../../kit/usePanel'
import { StockForm } from './StockForm'

/** What lies in the drawers of the stores: how many, in which state, where, and from which machine. */
export default function Parts() {
  const [parameters, setParameters] = useFilters()
  const search = parameters.get('search') ?? ''
  const stock = useInfiniteQuery(stockQuery(search))
  const [adding, setAdding] = usePanel('part')
  const [opened, setOpened] = useState<{ id: number; for: 'edit' | 'pictures' }>()
  const close = () => { setOpened(undefined) }
  const add = useAddStock()
  const currency = useQuery(collectionQuery).data?.currency
  const found = stock.data?.pages.flatMap((page) => page.parts) ?? []
  return (
    <Page>
      <ListHead title="Parts" label="Filter by words in name, state, place, source, former machine" words={search}
        onWords={(words) => { setParameters(words ? { search: words } : {}) }}>
        <Button $tone="main" onPress={() => { setAdding(true) }}>Put parts in</Button>
      </ListHead>
      <p><Faint><Link to="/stores">Stores</Link> / Parts: drawers of components, mechanical and made parts, tools and what is
        used up. <Link to="/stores/needs">What jobs need</Link></Faint></p>
      {adding && <StockForm keptAs="new part in store" action="Save" error={add.error} isPending={add.isPending}
        currency={currency} onCancel={() => { setAdding(false) }}
        onSubmit={(fields) => { add.mutate(fields, { onSuccess: () => { setAdding(false) } }) }} />}
      {stock.error && <Notice tone="stop" word="Not listed.">{messageOf(stock.error)}</Notice>}
      {found.length > 0 && (
        <Scroll>
          <StackedTable>
            <thead>
              <tr><th>What</th><th>State</th><Figure as="th">Count</Figure><Figure as="th">Free</Figure><th>Where</th>
                <th>From</th><Figure as="th">One{currency && `, ${currency}`}</Figure><td /></tr>
            </thead>
            <tbody>
              {found.map((one) => opened?.id === one.id && opened.for === 'edit'
                ? <tr key={one.id}><td colSpan={8}><Edit one={one} currency={currency} onDone={close} /></td></tr>
                : <Fragment key={one.id}>
                    <Drawer one={one} onOpen={(what) => { setOpened({ id: one.id, for: what }) }} />
                    {opened?.id === one.id && <tr><td colSpan={8}>
                      <Pictures owner={{ stock: one.id }} />
                      <Buttons><Button $small onPress={close}>Close</Button></Buttons>
                    </td></tr>}
                  </Fragment>)}
            </tbody>
          </StackedTable>
        </Scroll>
      )}
      {stock.data && found.length === 0 && !adding && (
        <p>{search ? <>Nothing in the drawers has all of these words. <Link to="/stores/parts">Show all</Link></>
          : 'No drawer is written down yet. Put in what lies there: 470u/16V radial 105C, 12 pieces, Store, box 3.'}</p>
      )}
      {stock.hasNextPage && (
        <Buttons><Button onPress={() => void stock.fetchNextPage()} isPending={stock.isFetchingNextPage}>
          Show more
        </Button></Buttons>
      )}
    </Page>
  )
}

const states = { '': 'state not said', new: 'new', 'used-good': 'used, good', untested: 'untested', faulty: 'faulty' } as const

function Drawer({ one, onOpen }: { one: Stock; onOpen: (what: 'edit' | 'pictures') => void }) {
  const drawings = one.files > 0 ? `Drawings (${String(one.files)})` : 'Drawings'

  return (
    <tr>
      <td><strong>{one.what}</strong>{one.kind === 'component' || !one.kind ? '' : ` (${one.kind})`}
        {[one.dateCode && `dated ${one.dateCode}`, one.model && `for ${one.model}`, one.material, one.why, one.note]
          .filter(Boolean).map((words) => <div key={words}><Faint>{words}</Faint></div>)}
        {one.setAside.map((aside) => <div key={aside.id}>{aside.count} for{' '}
          <Link to={`/bench/${String(aside.machineId)}/make-good`}>{aside.accession}: {aside.job}</Link></div>)}</td>
      <td>{one.condition === 'faulty' && <Mark kind="problem" />} {states[one.condition ?? '']}</td>
      <Figure data-head="Count">{one.count}</Figure>
      <Figure data-head="Free" $warn={one.isLow}>{one.free}{one.isLow && <> <Faint>of {one.minimum}</Faint></>}</Figure>
      <td>{one.place}{one.backBy && <div><Mark kind="attention" /> back by {one.backBy}{one.backTo && <>{' '}
        to {one.lentBy ? <Link to={`/bench/${String(one.lentBy)}`}>{one.backTo}</Link> : one.backTo}</>}</div>}</td>
      <td>{one.from ? <><Link to={`/bench/${String(one.from.machineId)}/make-good`}>{one.from.accession}</Link>{' '}
        {[one.from.board, one.from.place].filter(Boolean).join(', ')}<div><Faint>{one.from.job}, {one.from.on}</Faint></div></>
        : one.source}</td>
      <Figure>{amountOf(one.priceCents)}</Figure>
      <td>
        <Button $small $tone="quiet" aria-label={`Edit ${one.what}`} onPress={() => { onOpen('edit') }}>Edit</Button>
        <Button $small $tone="quiet" aria-label={`${drawings} and pictures of ${one.what}`}
          onPress={() => { onOpen('pictures') }}>{drawings}</Button>
      </td>
    </tr>
  )
}

function Edit({ one, currency, onDone }: { one: Stock; currency?: string; onDone: () => void }) {
  const change = useChangeStock(one.id)
  const voiding = useVoidStock()
  return (
    <>
    <EditRecord keptAs={`part ${String(one.id)}`} record={one} change={change} newerIn={(newer) => newer.stock} names={names}
      onDone={onDone}>
      {(form) => <StockForm start={one} action="Save" currency={currency} {...form} />}
    </EditRecord>
    <Buttons><Button $small $tone="quiet" isPending={voiding.isPending} aria-label={`Delete ${one.what}`}
      onPress={() => { voiding.mutate(one, { onSuccess: onDone }) }}>Delete</Button></Buttons>
    <NotSaved error={voiding.error} />
    </>
  )
}

const names: Partial<Record<keyof Stock, string>> = { what: 'what it is', count: 'count', condition: 'state', place: 'place',
  minimum: 'minimum', note: 'note', source: 'source' }
