import { Link } from 'react-router'

import type { Weighed } from '../../api/wanted'
import { amountOf } from '../../kit/amount'
import { Mark } from '../../kit/Mark'
import { Faint } from '../../kit/Page'

/** What an offer amounts to: what is looked for in it, what is held of it, what was paid before. */
export function OfferWeighed({ weighed, currency }: { weighed: Weighed; currency?: string }) {
  const { hits, held, stores, prices, over } = weighed
  return (
    <>
      {over && <p><Mark kind="attention" /> {over}</p>}
      {hits.length === 0 ? <p><Faint>Nothing that is looked for stands in it.</Faint></p> : (
        <ul aria-label="Looked for">{hits.map((hit) => (
          <li key={hit.wantId}><Mark kind={hit.doubt ? 'unknown' : 'done'} /> {hit.doubt && 'perhaps '}<strong>{hit.what}</strong>
            {hit.machineId && <> for <Link to={`/bench/${String(hit.machineId)}`}>{hit.accession}</Link></>}
            {hit.mostCents !== null && <>, at most {amountOf(hit.mostCents)} {currency}</>}
            {' '}<Faint>by {hit.by.join(', ')}{hit.doubt && `; ${hit.doubt}`}</Faint></li>
        ))}</ul>
      )}
      {held.length > 0 && <p>Held already: {held.map(({ name, count, doubt }, i) => <span key={name}>{i > 0 && ', '}
        {doubt && 'perhaps '}{count} x {name}</span>)}</p>}
      {stores.length > 0 && <p>In the stores: {stores.map(({ id, what, count }, i) => <span key={id}>{i > 0 && ', '}
        <Link to={`/stores/parts?search=${encodeURIComponent(what)}`}>{count} x {what}</Link></span>)}</p>}
      {prices.length > 0 && <><p>Paid or asked before for what is like it:</p><ul aria-label="Paid or asked before">{prices.map((one) => (
        <li key={`${one.kind} ${String(one.id)} ${one.what}`}><Link to={paths[one.kind](one.id)}>{one.what}</Link>:{' '}
          {amountOf(one.cents)} {one.currency || currency} <Faint>{words[one.kind]}, {one.on || 'nobody knows when'}</Faint></li>
      ))}</ul></>}
    </>
  )
}

type Kind = Weighed['prices'][number]['kind']

const words: Record<Kind, string> = { asked: 'asked in an offer', lot: 'paid for it alone', share: 'its estimate in a lot',
  ordered: 'each, ordered' }
const paths: Record<Kind, (id: number) => string> = { asked: (id) => `/stores/wanted?offer=${String(id)}`,
  lot: (id) => `/collection/arrivals/${String(id)}`, share: (id) => `/collection/arrivals/${String(id)}`,
  ordered: (id) => `/stores/orders?order=${String(id)}` }
