import { useInfiniteQuery } from '@tanstack/react-query'
import { Link, useNavigate } from 'react-router'

import { looseQuery } from '../../api/moves'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { Button, Buttons } from '../../kit/Button'
import { ListHead } from '../../kit/ListHead'
import { Figure, ListTable, Scroll } from '../../kit/ListTable'
import { Notice } from '../../kit/Notice'
import { Faint, Page } from '../../kit/Page'
import { useFilters } from '../../kit/useFilters'
import { usePanel } from '../../kit/usePanel'
import { AddLoose } from './AddLoose'

/** What is in no machine: boards and other units in store, and those that are lent. */
export default function Stores() {
  const [parameters, setParameters] = useFilters()
  const search = parameters.get('search') ?? ''
  const loose = useInfiniteQuery(looseQuery(search))
  const account = useAccount()
  const navigate = useNavigate()
  const [adding, setAdding] = usePanel('board')
  const found = loose.data?.pages.flatMap((page) => page.assemblies) ?? []
  return (
    <Page>
      <ListHead
        title="Stores"
        label="Filter by words in name, kind, part number, place, borrower"
        words={search}
        onWords={(words) => { setParameters(words ? { search: words } : {}) }}
      >
        {account?.mayWriteSheets && <>
          <Button onPress={() => void navigate('/stores/parts')}>Parts</Button>
          <Button onPress={() => void navigate('/stores/needs')}>What jobs need</Button>
          <Button onPress={() => void navigate('/stores/orders')}>Orders</Button>
          <Button onPress={() => void navigate('/stores/wanted')}>Wanted</Button>
        </>}
        <Button onPress={() => void navigate('/stores/places')}>Places</Button>
        {account?.mayWriteSheets && <Button $tone="main" onPress={() => { setAdding(true) }}>
          Enter something loose
        </Button>}
      </ListHead>
      {adding && <AddLoose onDone={() => { setAdding(false) }} />}
      <p><Faint>Boards, cards, drives, supplies and keyboards that are in no machine.</Faint></p>
      {loose.error && <Notice tone="stop" word="Not listed.">{messageOf(loose.error)}</Notice>}
      {found.length > 0 && (
        <Scroll>
          <ListTable>
            <thead>
              <tr><th>What</th><th>Kind</th><th>Part number</th><th>Where</th><th>Since</th><th>Came from</th>
                <Figure as="th">Chips</Figure><Figure as="th">RAM, KB</Figure><Figure as="th">ROM, KB</Figure></tr>
            </thead>
            <tbody>
              {found.map((one) => (
                <tr key={one.id}>
                  <td><Link to={`/stores/${String(one.id)}`}>{one.title}</Link></td>
                  <td>{one.kind}</td>
                  <td>{one.part}</td>
                  <td>{one.lentTo ? `lent to ${one.lentTo}${one.due ? `, back by ${one.due}` : ''}` : one.place}</td>
                  <td>{one.since}</td>
                  <td>{one.from}</td>
                  <Figure>{one.chips || ''}</Figure>
                  <Figure>{one.ram}</Figure>
                  <Figure>{one.rom}</Figure>
                </tr>
              ))}
            </tbody>
          </ListTable>
        </Scroll>
      )}
      {loose.data && found.length === 0 && (
        <p>{search ? <>Nothing loose has all of these words. <Link to="/stores">Show all</Link></>
          : 'Nothing is loose: everything is in a machine. Take something out at the bench with Move.'}</p>
      )}
      {loose.hasNextPage && (
        <Buttons><Button onPress={() => void loose.fetchNextPage()} isPending={loose.isFetchingNextPage}>
          Show more
        </Button></Buttons>
      )}
    </Page>
  )
}
