import type { ModelPage } from '../../../api/identify'
import { Scroll, StackedTable } from '../../../kit/ListTable'
import { Mark, type MarkKind } from '../../../kit/Mark'
import { Faint } from '../../../kit/Page'
import { Part } from '../../../kit/Part'

type Told = ModelPage['told'][number]

const marks: Record<Told['state'], MarkKind> = { settled: 'done', open: 'unknown', disputed: 'problem' }

/** What is told of a model, with who says so. */
export function ToldFacts({ told }: { told: Told[] }) {
  return (
    <Part title="What is told of it">
      {told.length === 0 ? <p><Faint>Nobody has written anything yet: processor, memory, picture, slots, price ...</Faint>
      </p> : (
        <Scroll>
          <StackedTable>
            <thead><tr><th>What</th><th>Is</th><th>By</th></tr></thead>
            <tbody>
              {told.map((one) => (
                <tr key={`${one.attribute} ${one.subject}`}>
                  <td>{one.label}{one.subject && ` of ${one.subject}`}</td>
                  <td><Mark kind={marks[one.state]} /> {one.now?.value ?? one.state}
                    {one.next && <><br /><Faint>{one.next}</Faint></>}</td>
                  <td>{one.by.map((by) => <div key={by.id}>{one.by.length > 1 && `${by.value}: `}{by.source}
                    {by.on && <Faint>, {by.on}</Faint>}</div>)}</td>
                </tr>
              ))}
            </tbody>
          </StackedTable>
        </Scroll>
      )}
    </Part>
  )
}
