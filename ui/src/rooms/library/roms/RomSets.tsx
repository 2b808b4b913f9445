import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import { romSetsQuery } from '../../../api/roms'
import { Mark } from '../../../kit/Mark'
import { Faint } from '../../../kit/Page'
import { Part } from '../../../kit/Part'

/** All images of a board together, and which boards hold them: all, or which socket differs. */
export function RomSets() {
  const sets = useQuery(romSetsQuery)
  if (!sets.data || sets.data.length === 0) return null
  return (
    <Part title="Sets" faint="All chips of a board together">
      <ul>
        {sets.data.map((set) => (
          <li key={set.id}>
            <strong>{set.name}</strong> <Faint>{set.images.map(({ place }) => place).join(', ')}</Faint>
            <ul>
              {set.boards.map((board) => (
                <li key={board.assemblyId}>
                  <Mark kind={board.complete ? 'done' : 'attention'} />{' '}
                  {board.machineId
                    ? <Link to={`/bench/${String(board.machineId)}/identify`}>{board.accession} {board.assembly}</Link>
                      : <Link to={`/stores/${String(board.assemblyId)}`}>{board.assembly}</Link>}{' '}
                  {board.complete ? 'has it all'
                    : [board.differ.length > 0 && `differs in ${board.differ.join(', ')}`,
                      board.missing.length > 0 && `${board.missing.join(', ')} not read`].filter(Boolean).join('; ')}
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ul>
    </Part>
  )
}
