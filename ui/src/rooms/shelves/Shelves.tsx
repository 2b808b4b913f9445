import { useInfiniteQuery } from '@tanstack/react-query'
import { Link, useNavigate, useSearchParams } from 'react-router'

import { machinesQuery } from '../../api/machines'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { Button, Buttons } from '../../kit/Button'
import { Field } from '../../kit/Field'
import { Notice } from '../../kit/Notice'
import { Faint, Page, PageHead, Title } from '../../kit/Page'
import { MachineTable } from './MachineTable'

/** The collection: a search that filters while typing, and the machines it finds. */
export function Shelves() {
  const [parameters, setParameters] = useSearchParams()
  const search = parameters.get('search') ?? ''
  const machines = useInfiniteQuery(machinesQuery(search))
  const account = useAccount()
  const navigate = useNavigate()
  const pages = machines.data?.pages ?? []
  const total = pages[0]?.total ?? 0
  const found = pages.flatMap((page) => page.machines)

  return (
    <Page>
      <PageHead>
        <Title>Shelves</Title>
        <Field
          label="Filter by words in name, maker, model, number, provenance"
          value={search}
          onChange={(words) => { setParameters(words ? { search: words } : {}, { replace: true }) }}
          maxLength={200}
          type="search"
        />
        {account?.mayKeepTheRecord && (
          <Button $tone="main" onPress={() => void navigate('/shelves/new')}>Enter a machine</Button>
        )}
      </PageHead>
      {machines.error && <Notice tone="stop" word="Not listed.">{messageOf(machines.error)}</Notice>}
      {machines.data && (
        <p role="status">
          <Faint>{total === 1 ? '1 machine' : `${String(total)} machines`}; sums over the boards fitted today, 1 KB is 1,024 bytes</Faint>
        </p>
      )}
      {found.length > 0 && <MachineTable machines={found} />}
      {machines.data && total === 0 && <Nothing search={search} />}
      {machines.hasNextPage && (
        <Buttons>
          <Button onPress={() => void machines.fetchNextPage()} isPending={machines.isFetchingNextPage}>Show more</Button>
          <Faint>{found.length} of {total} shown</Faint>
        </Buttons>
      )}
    </Page>
  )
}

function Nothing({ search }: { search: string }) {
  return search ? (
    <p>No machine has all of these words in its record. <Link to="/shelves">Show all machines</Link></p>
  ) : (
    <p>The shelves are empty. A curator starts with <em>Enter a machine</em>: an accession number and a name are enough.</p>
  )
}
