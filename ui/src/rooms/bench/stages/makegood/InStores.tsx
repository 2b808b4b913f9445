import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import { messageOf } from '../../../../api/problem'
import { stockForMachineQuery } from '../../../../api/stores'
import { Mark } from '../../../../kit/Mark'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'

/** What lies in the stores for the machine: parts that came out of it and were kept or lent,
  and those for its model. */
export function InStores({ machineId }: { machineId: number }) {
  const stock = useQuery(stockForMachineQuery(machineId))
  if (stock.error) return <Notice tone="stop" word="Stores not read.">{messageOf(stock.error)}</Notice>
  if (!stock.data || stock.data.length === 0) return null
  return (
    <Part title="In the stores for it" faint="Kept or lent from it, or made for its model">
      <ul>
        {stock.data.map((one) => (
          <li key={one.id}>
            <Link to={`/stores/parts?search=${encodeURIComponent(one.what)}`}>{one.what}</Link>: {one.free} free
            {one.place && `, ${one.place}`}{' '}
            {one.files > 0 && <Faint>{one.files === 1 ? 'with a drawing or picture; '
              : `with ${String(one.files)} drawings and pictures; `}</Faint>}
            {one.lentBy === machineId && <><Mark kind="attention" /> lent out of it
              {one.backBy && `, back by ${one.backBy}`} </>}
            <Faint>{one.from?.machineId === machineId ? `was in ${[one.from.board, one.from.place].filter(Boolean)
              .join(', ') || 'it'}, taken out on ${one.from.on}` : [one.model && `for ${one.model}`, one.why].filter(Boolean).join('; ')}
            </Faint>
          </li>
        ))}
      </ul>
    </Part>
  )
}
