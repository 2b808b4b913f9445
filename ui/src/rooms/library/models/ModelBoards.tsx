import { Link } from 'react-router'

import type { ModelPage } from '../../../api/identify'
import { Scroll, StackedTable } from '../../../kit/ListTable'
import { Mark } from '../../../kit/Mark'
import { Faint } from '../../../kit/Page'
import { Part } from '../../../kit/Part'

type Board = ModelPage['boards'][number]

/** What belongs in a model and what else fits it, with the revisions of each and what each is known to suffer from. */
export function ModelBoards({ model }: { model: ModelPage }) {
  const all = [...model.boards, ...model.fits]
  return (
    <Part title="Boards and cards">
      {all.length === 0 ? <p><Faint>Nobody has written down yet what belongs in it.</Faint></p> : (
        <Scroll>
          <StackedTable>
            <thead><tr><th>Assembly</th><th>Part number</th><th>Revisions, since</th><th>Known to suffer from</th></tr></thead>
            <tbody>{all.map((one, i) => <Row key={`${String(one.knownId)} ${one.name} ${String(i)}`} one={one} />)}</tbody>
          </StackedTable>
        </Scroll>
      )}
    </Part>
  )
}

function Row({ one }: { one: Board }) {
  const { expected } = one
  const name = one.knownId ? <Link to={`/library/known/${String(one.knownId)}`}>{one.name}</Link> : one.name
  return (
    <tr>
      <td>{name}{' '}
        <Faint>{[!expected && 'fits it', expected?.option && 'option', expected?.from && `from ${expected.from}`,
          one.difference].filter(Boolean).join(', ')}</Faint></td>
      <td>{expected?.part}</td>
      <td>{one.revisions.map((r) => <div key={r.revision}>{[r.revision, r.made, r.note].filter(Boolean).join(', ')}</div>)}
        {one.remarks.map((remark) => <div key={remark}><Mark kind="attention" /> {remark}</div>)}</td>
      <td>{one.faults.map(({ what }) => <div key={what}>{what}</div>)}</td>
    </tr>
  )
}
