import { useInfiniteQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { machinesQuery } from '../../api/machines'
import { Pick } from '../../kit/Pick'

/** Picks a machine by words of its record. */
export function PickMachine({ onPick, label = 'Machine', start = '', isFirst = true }: { onPick: (id: number | null) => void
  label?: string; start?: string; isFirst?: boolean }) {
  const [search, setSearch] = useState(start)
  const found = useInfiniteQuery(machinesQuery({ search }))
  const machines = found.data?.pages[0]?.machines ?? []
  return (
    <Pick
      label={label}
      name="machineId"
      placeholder="EH-0142"
      items={machines.slice(0, 20).map(({ id, accession, name }) => ({ id, text: `${accession} ${name}` }))}
      search={search}
      onSearch={setSearch}
      onPick={onPick}
      autoFocus={isFirst}
    />
  )
}
