import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import { pastBoardsQuery } from '../../../../api/moves'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'

/** What was in the machine and is not any more; nothing where that is nothing. */
export function PastBoards({ machineId }: { machineId: number }) {
  const were = useQuery(pastBoardsQuery(machineId)).data ?? []
  if (were.length === 0) return null
  return (
    <Part title="Were in here">
      <ul>
        {were.map(({ assemblyId, title, slot, since, until, note, where }) => (
          <li key={`${String(assemblyId)} ${since}`}>
            <Link to={`/stores/${String(assemblyId)}`}>{title}</Link>{slot && `, slot ${slot}`}{' '}
            <Faint>{since} to {until}; {[`now ${where}`, note].filter(Boolean).join('; ')}</Faint>
          </li>
        ))}
      </ul>
    </Part>
  )
}
