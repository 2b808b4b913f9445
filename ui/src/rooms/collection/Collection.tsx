import { useInfiniteQuery } from '@tanstack/react-query'
import { useCallback, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import styled from 'styled-components'

import { machinesQuery } from '../../api/machines'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { Button } from '../../kit/Button'
import { useColumns } from '../../kit/Columns'
import { ListHead } from '../../kit/ListHead'
import { Notice } from '../../kit/Notice'
import { Faint, Page } from '../../kit/Page'
import { useFilters } from '../../kit/useFilters'
import { narrow, space } from '../../theme'
import { Chosen } from './Chosen'
import { type MachineColumn, machineColumns } from './columns'
import { Facets } from './Facets'
import { MachineTable } from './MachineTable'
import { readQuery, type Sort, sorted, ticked, withValue } from './machineFilters'
import { SavedFilters } from './SavedFilters'

/** The collection: filters that narrow while typing and ticking, and the machines they leave. */
export default function Collection() {
  const [parameters, setParameters] = useFilters()
  const query = readQuery(parameters)
  const machines = useInfiniteQuery(machinesQuery(query))
  const account = useAccount()
  const navigate = useNavigate()
  const pages = machines.data?.pages ?? []
  const total = pages[0]?.total ?? 0
  const change = (next: URLSearchParams) => { setParameters(next) }
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = machines
  const onEnd = useCallback(() => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage()
  }, [hasNextPage, isFetchingNextPage, fetchNextPage])

  const { shown, choice } = useColumns<Sort, MachineColumn>('machines', machineColumns)
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set())
  const listed = pages.flatMap((page) => page.machines)

  return (
    <Page>
      <ListHead
        title="Collection"
        label="Filter by words in name, maker, model, number, place, provenance"
        words={query.search ?? ''}
        onWords={(words) => { change(withValue(parameters, 'search', words)) }}
      >
        <Button onPress={() => void navigate('/collection/arrivals')}>Arrivals</Button>
        {account?.mayKeepTheRecord && (
          <Button $tone="main" onPress={() => void navigate('/collection/new')}>Enter a machine</Button>
        )}
      </ListHead>
      {machines.error && <Notice tone="stop" word="Not listed.">{messageOf(machines.error)}</Notice>}
      <Beside>
        <Facets query={query} onTick={(facet, value) => { change(ticked(parameters, facet, value)) }}
          onType={(number) => { change(withValue(parameters, 'type', number)) }} />
        <List>
          <SavedFilters list="machines" page="/collection" filter={parameters.toString()} />
          <Chosen chosen={chosen} machines={listed} onClear={() => { setChosen(new Set()) }} />
          <Above>
          {machines.data && (
            <p role="status">
              <Faint>{total === 1 ? '1 machine' : `${total.toLocaleString('en')} machines`}; sums over the boards
                fitted today, 1 KB is 1,024 bytes</Faint>
              {parameters.size > 0 && <> <Link to="/collection">Show all machines</Link></>}
            </p>
          )}
          {choice}
          </Above>
          {total > 0 && (
            <MachineTable
              machines={listed}
              total={total}
              query={query}
              columns={shown}
              chosen={chosen}
              onChoose={setChosen}
              onSort={(sort) => { change(sorted(parameters, sort)) }}
              onEnd={onEnd}
            />
          )}
          {machines.data && total === 0 && (
            <p>
              {parameters.size > 0
                ? 'No machine fits all of this.'
                : <>The collection is empty. A curator starts with <em>Enter a machine</em>: an accession number and a
                  name are enough.</>}
            </p>
          )}
        </List>
      </Beside>
    </Page>
  )
}

const Beside = styled.div`
  display: grid;
  grid-template-columns: 208px minmax(0, 1fr);
  align-items: start;
  gap: ${space(3)};
  ${narrow} { grid-template-columns: minmax(0, 1fr); gap: ${space(1)}; }
`
const Above = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 ${space(2)};
`
const List = styled.div`
  min-width: 0;
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
`
