import { useInfiniteQuery } from '@tanstack/react-query'
import { useEffect } from 'react'
import { Link, useSearchParams } from 'react-router'

import { machinesQuery } from '../../api/machines'
import { messageOf } from '../../api/problem'
import { Button } from '../../kit/Button'
import { Notice } from '../../kit/Notice'
import { usePageTitle } from '../../kit/pageTitle'
import { LabelPaper, OnScreen } from '../../kit/Paper'

/** Labels of machines for paper: number, name, model, place. */
export default function Labels() {
  usePageTitle('Labels')
  const ids = useSearchParams()[0].getAll('id').map(Number).filter((id) => Number.isInteger(id) && id > 0)
  const { data, error, hasNextPage, fetchNextPage } = useInfiniteQuery({ ...machinesQuery({ id: ids }),
    enabled: ids.length > 0 })
  useEffect(() => { if (hasNextPage) void fetchNextPage() }, [hasNextPage, fetchNextPage, data])
  const machines = data?.pages.flatMap((page) => page.machines) ?? []
  return (
    <LabelPaper>
      <OnScreen>
        <h1>Labels</h1>
        <Button $tone="main" onPress={() => { window.print() }}>Print</Button>
        <Link to="/collection">Back to the collection</Link>
      </OnScreen>
      {error && <Notice tone="stop" word="Not read.">{messageOf(error)}</Notice>}
      {ids.length === 0 && <p>No machine is chosen.</p>}
      <ul>
        {machines.map((machine) => (
          <li key={machine.id}>
            <b>{machine.accession}</b>
            <span>{machine.name}</span>
            <span>{[machine.maker, machine.model].filter(Boolean).join(' ')}</span>
            <small>{machine.place}</small>
          </li>
        ))}
      </ul>
    </LabelPaper>
  )
}
