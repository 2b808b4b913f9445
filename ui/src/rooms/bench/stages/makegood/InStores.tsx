import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import { messageOf } from '../../../../api/problem'
import { stockForMachineQuery } from '../../../../api/stores'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'

/** What lies in the stores for the machine: parts that came out of it and were kept,
  and those that are for its model. */
export function InStores({ machineId }: { machineId: number }) {
  const stock = useQuery(stockForMachineQuery(machineId))
  if (stock.error) return <Notice tone="stop" word="Stores not read.">{messageOf(stock.error)}</Notice>
  if (!stock.data || stock.data.length === 0) return null
  return (
    <Part title="In the stores for it" faint="Kept from it, or made for its model">
      <ul>
        {stock.data.map((one) => (
          <li key={one.id}>
            <Link to={`/stores/parts?search=${encodeURIComponent(one.what)}`}>{one.what}</Link>: {one.free} free
            {one.place && `, ${one.place}`}{' '}
            <Faint>{one.from?.machineId === machineId ? `was in ${[one.from.board, one.from.place].filter(Boolean)
              .join(', ') || 'it'}, taken out on ${one.from.on}` : [`for ${one.model ?? ''}`, one.why].filter(Boolean).join('; ')}
            </Faint>
          </li>
        ))}
      </ul>
    </Part>
  )
}
