import { Link } from 'react-router'

import type { Elsewhere as Board } from '../../../../api/diagnosis'
import { Scroll, StackedTable } from '../../../../kit/ListTable'
import { Mark, type MarkKind } from '../../../../kit/Mark'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'

const pairings: Record<Board['pairing'], { mark: MarkKind; words: string }> = {
  '': { mark: 'unknown', words: 'one machine does not tell the board from the machine' },
  'bad part': { mark: 'problem', words: 'the symptom was there in several machines whenever it was in: perhaps a bad board' },
  'bad pairing': { mark: 'attention', words: 'goes well in one machine and not in another: perhaps the two do not go together, if it is one symptom' },
  'good part': { mark: 'done', words: 'went well in several machines' },
  'comes and goes': { mark: 'unknown', words: 'comes and goes' } }

/** How the boards that were tried did in all machines: a bad board, or two that do not go together? */
export function Elsewhere({ boards, machineId }: { boards: Board[]; machineId: number }) {
  return (
    <Part title="Boards in trials, over all machines">
      <Scroll>
        <StackedTable>
          <thead><tr><th>Board</th><th>What that tells</th><th>Where it was tried</th></tr></thead>
          <tbody>{boards.map(({ assemblyId, title, pairing, machines }) => (
            <tr key={assemblyId}>
              <td><strong>{title}</strong></td>
              <td><Mark kind={pairings[pairing].mark} /> {pairings[pairing].words}</td>
              <td>{machines.length === 0 && <Faint>in no trial yet</Faint>}
                {machines.map(({ machineId: id, accession, ok, failed, sometimes, last }) => <div key={id}>
                  {id === machineId ? 'here' : <Link to={`/bench/${String(id)}/set-up`}>{accession}</Link>}:{' '}
                  {[ok && `${String(ok)} well`, failed && `${String(failed)} with the symptom`,
                    sometimes && `${String(sometimes)} now and then`].filter(Boolean).join(', ')} <Faint>{last}</Faint></div>)}</td>
            </tr>
          ))}</tbody>
        </StackedTable>
      </Scroll>
    </Part>
  )
}
