import { useQuery } from '@tanstack/react-query'

import type { FittedAssembly } from '../../../../api/assemblies'
import { occupantsQuery } from '../../../../api/history'
import { ListTable, Scroll } from '../../../../kit/ListTable'
import { Faint } from '../../../../kit/Page'

/** Which part sat where on a board, one after another; nothing where none was ever changed. */
export function Occupants({ assembly }: { assembly: FittedAssembly }) {
  const changed = useQuery(occupantsQuery(assembly.id, assembly.revision)).data ?? []
  if (changed.length === 0) return null
  return (
    <>
      <h3>Parts that came and went</h3>
      <Scroll tabIndex={0} role="group" aria-label="Parts that came and went"><ListTable>
        <thead><tr><th>Position</th><th>Part</th><th>From</th><th>Until</th></tr></thead>
        <tbody>
          {changed.flatMap(({ designator, occupants }) => occupants.map((one, i) => (
            <tr key={`${designator} ${String(i)}`}>
              <td>{i === 0 ? <strong>{designator}</strong> : ''}</td>
              <td>{one.words || <Faint>nobody wrote what it was</Faint>}</td>
              <td>{one.from || <Faint>as far as known</Faint>}{one.came && <Faint>, {one.came}</Faint>}</td>
              <td>{one.until || 'today'}{one.went && <Faint>, {one.went}</Faint>}</td>
            </tr>
          )))}
        </tbody>
      </ListTable></Scroll>
    </>
  )
}
