import { useInfiniteQuery } from '@tanstack/react-query'
import { Link, useNavigate } from 'react-router'

import { lotsQuery } from '../../api/lots'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { Button, Buttons } from '../../kit/Button'
import { ListHead } from '../../kit/ListHead'
import { Figure, ListTable, Scroll } from '../../kit/ListTable'
import { Notice } from '../../kit/Notice'
import { Faint, Page } from '../../kit/Page'
import { useFilters } from '../../kit/useFilters'

/** What arrived, the newest first. */
export default function Arrivals() {
  const [parameters, setParameters] = useFilters()
  const words = parameters.get('search') ?? ''
  const lots = useInfiniteQuery(lotsQuery(words))
  const account = useAccount()
  const navigate = useNavigate()
  const found = lots.data?.pages.flatMap((page) => page.lots) ?? []
  return (
    <Page>
      <ListHead
        title="Arrivals"
        label="Filter by words in what arrived, its things, from whom, how, when"
        words={words}
        onWords={(next) => { setParameters(next ? { search: next } : {}) }}
      >
        {account?.mayKeepTheRecord && <Button $tone="main" onPress={() => void navigate('/collection/arrivals/new')}>
          Receive a lot
        </Button>}
      </ListHead>
      <p><Faint>What came together, from whom and for how much. Its things become machines, go to store, or are passed
        on. <Link to="/collection">Back to the collection</Link></Faint></p>
      {lots.error && <Notice tone="stop" word="Not listed.">{messageOf(lots.error)}</Notice>}
      {found.length > 0 && (
        <Scroll>
          <ListTable>
            <thead><tr><th>When</th><th>What arrived</th><th>How</th><th>From</th><Figure as="th">Things</Figure>
              <Figure as="th">Cost</Figure><th>Currency</th></tr></thead>
            <tbody>
              {found.map((lot) => (
                <tr key={lot.id}>
                  <Figure $text>{lot.arrived}</Figure>
                  <td><Link to={`/collection/arrivals/${String(lot.id)}`}>{lot.title}</Link></td>
                  <td>{lot.method}</td>
                  <td>{lot.party}</td>
                  <Figure>{lot.items}</Figure>
                  <Figure>{lot.priceCents === null && !lot.costs?.length ? '' : lot.cost}</Figure>
                  <td>{lot.priceCents === null && !lot.costs?.length ? '' : lot.currency}</td>
                </tr>
              ))}
            </tbody>
          </ListTable>
        </Scroll>
      )}
      {lots.data && found.length === 0 && (
        <p>{words ? <>No arrival has all of these words. <Link to="/collection/arrivals">Show all</Link></>
          : 'Nothing is written down as arrived. Receive the first lot: what came together, from whom, for how much.'}</p>
      )}
      {lots.hasNextPage && <Buttons>
        <Button onPress={() => void lots.fetchNextPage()} isPending={lots.isFetchingNextPage}>Show earlier</Button>
      </Buttons>}
    </Page>
  )
}
