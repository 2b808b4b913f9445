import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { holdingQuery, type MachineQuery } from '../../api/machines'
import { Field } from '../../kit/Field'
import { Count, Group, Value } from './Facet'

/** Narrows the list to machines with a type on one of their sheets. */
export function HoldsType({ query, onType }: { query: MachineQuery; onType: (number: string) => void }) {
  const [start, setStart] = useState('')
  const holding = useQuery({ ...holdingQuery(query, start.trim()), enabled: start.trim() !== '' })
  const offered = start.trim() ? (holding.data ?? []) : []
  const chosen = query.type && !offered.some(({ value }) => value === query.type)
    ? [{ value: query.type, count: undefined }] : []
  return (
    <Group>
      <legend>Holds the type</legend>
      <Field aria-label="Type number, by its start" label="" value={start} onChange={setStart} placeholder="4164"
        maxLength={20} mono type="search" />
      {[...chosen, ...offered].map(({ value, count }) => (
        <Value key={value}>
          <input type="checkbox" checked={query.type === value}
            onChange={() => { onType(query.type === value ? '' : value) }} />
          <span>{value}</span>
          <Count>{count?.toLocaleString('en')}</Count>
        </Value>
      ))}
      {holding.data?.length === 0 && offered.length === 0 && start.trim() && <p>No machine holds such a type.</p>}
    </Group>
  )
}
