import type { Treatment } from '../../../../api/work'
import { ListTable, Scroll, Whole } from '../../../../kit/ListTable'
import { Part } from '../../../../kit/Part'

const words = { yes: 'can be undone', partly: 'in part', no: 'cannot be undone', '': 'not said' }

/** What was changed by jobs that are done: when, by whom, how reversible, and what would undo it. */
export function Modifications({ treatment }: { treatment: Treatment }) {
  const done = treatment.jobs.filter(({ state }) => state === 'done')
  if (done.length === 0) return null
  return (
    <Part title="What was changed" faint="And what would undo it">
      <Scroll>
        <ListTable>
          <thead><tr><th>When, who</th><th>What</th><th>Reversible</th><th>What would undo it</th></tr></thead>
          <tbody>{done.map(({ id, title, place, ending }) => (
            <tr key={id}>
              <Whole>{ending.on}<br />{ending.by}</Whole>
              <td>{title}{place && `, ${place}`}{ending.new && `: ${ending.new}`}</td>
              <Whole>{words[ending.reversible]}</Whole>
              <td>{ending.undo}</td>
            </tr>
          ))}</tbody>
        </ListTable>
      </Scroll>
    </Part>
  )
}
