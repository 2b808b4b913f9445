import { useInfiniteQuery } from '@tanstack/react-query'
import { Link, useNavigate } from 'react-router'

import { type KnownAssembly, knownQuery, useNameKnown } from '../../../api/known'
import { messageOf } from '../../../api/problem'
import { useAccount } from '../../../api/session'
import { Button } from '../../../kit/Button'
import { ListHead } from '../../../kit/ListHead'
import { Scroll, StackedTable } from '../../../kit/ListTable'
import { Notice } from '../../../kit/Notice'
import { Faint, Page } from '../../../kit/Page'
import { useFilters } from '../../../kit/useFilters'
import { usePanel } from '../../../kit/usePanel'
import { KnownForm } from './KnownForm'

/** Cards, boards and other units that are recognised wherever they are. */
export default function KnownAssemblies() {
  const [parameters, setParameters] = useFilters()
  const words = parameters.get('search') ?? ''
  const found = useInfiniteQuery(knownQuery(words))
  const known = found.data?.pages.flatMap((page) => page.known) ?? []
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [naming, setNaming] = usePanel('card')
  const name = useNameKnown()
  const go = useNavigate()
  return (
    <Page>
      <ListHead title="Cards and boards" label="Filter by words in name, maker, number, print" words={words}
        onWords={(next) => { setParameters(next ? { search: next } : {}) }}>
        {mayWrite && <Button $tone="main" onPress={() => { setNaming(true) }}>Name one</Button>}
      </ListHead>
      <p><Faint>Also supplies, keyboards, leads. What is named once is recognised on every machine. <Link to="/library">
        Back to the library
      </Link></Faint></p>
      {naming && (
        <KnownForm
          keptAs="new card"
          error={name.error}
          isPending={name.isPending}
          action="Name it"
          onSubmit={(fields) => {
            name.mutate(fields, { onSuccess: ({ id }) => { void go(`/library/known/${String(id)}`) } })
          }}
          onCancel={() => { setNaming(false); name.reset() }}
        />
      )}
      {found.error && <Notice tone="stop" word="Not listed.">{messageOf(found.error)}</Notice>}
      {known.length > 0 && (
        <Scroll>
          <StackedTable>
            <thead><tr><th>What it is</th><th>Part numbers</th><th>Revisions</th><th>Also known by</th>
              <th>How one knows</th></tr></thead>
            <tbody>{known.map((one) => <Row key={one.id} one={one} />)}</tbody>
          </StackedTable>
        </Scroll>
      )}
      {found.hasNextPage && <Button isPending={found.isFetchingNextPage}
        onPress={() => { void found.fetchNextPage() }}>More</Button>}
      {found.isSuccess && known.length === 0 && <p>
        {words ? 'None has all of these words.'
          : 'Nothing is named yet. Name a card here, on its board in the stage Take stock, or by answering about its part number among the unknowns.'}
      </p>}
    </Page>
  )
}

function Row({ one }: { one: KnownAssembly }) {
  const types = one.chips ? one.chips.split('\n').length : 0
  return (
    <tr>
      <td><Link to={`/library/known/${String(one.id)}`}>{one.name}</Link>
        <br /><Faint>{[one.kind, one.maker].filter(Boolean).join(' · ')}</Faint></td>
      <td>{(one.numbers ?? '').split('\n').join(', ')}</td>
      <td>{one.revisions || (one.numbers && 'every one')}</td>
      <td>{[one.printed && `print: ${one.printed.split('\n').join(', ')}`, types > 0 && `${String(types)} types of chips`]
        .filter(Boolean).join('; ')}</td>
      <td>{one.source || 'recalled'}</td>
    </tr>
  )
}
