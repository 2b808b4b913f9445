import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { besideQuery, type Compared, type ModelPage, modelsQuery } from '../../../api/identify'
import { messageOf } from '../../../api/problem'
import { Choice, FieldGrid } from '../../../kit/Field'
import { Scroll, StackedTable } from '../../../kit/ListTable'
import { Mark, type MarkKind } from '../../../kit/Mark'
import { Notice } from '../../../kit/Notice'
import { Faint } from '../../../kit/Page'
import { Part } from '../../../kit/Part'

const marks: Record<Compared['rows'][number]['state'], MarkKind> = { same: 'done', different: 'attention',
  unknown: 'unknown', disputed: 'problem' }

/** A model beside another model, or beside one of its machines. */
export function BesideOther({ model }: { model: ModelPage }) {
  const [other, setOther] = useState('')
  const models = useQuery(modelsQuery('')).data ?? []
  const options = [
    { value: '', text: 'choose' },
    ...model.built.map(({ id, accession, name }) => ({ value: `machine ${String(id)}`, text: `${accession} ${name}` })),
    ...models.filter(({ id }) => id !== model.id).map((one) =>
      ({ value: `model ${String(one.id)}`, text: `${one.maker} ${one.model}` })),
  ]
  const [what, id] = other.split(' ')
  const compared = useQuery(besideQuery(model.id, what === 'model' ? 'model' : 'machine', Number(id ?? 0)))
  return (
    <Part title="Beside another">
      <FieldGrid><Choice label="A machine of it, or another model" value={other} options={options} onChange={setOther} />
      </FieldGrid>
      {compared.error && <Notice tone="stop" word="Not compared.">{messageOf(compared.error)}</Notice>}
      {compared.data?.rows.length === 0 && <p><Faint>Nothing is told of either that could be compared.</Faint></p>}
      {compared.data && compared.data.rows.length > 0 && (
        <Scroll>
          <StackedTable>
            <thead><tr><th>What</th><th>{compared.data.first}</th><th>{compared.data.second}</th><th>They are</th></tr></thead>
            <tbody>
              {compared.data.rows.map((row) => (
                <tr key={`${row.attribute} ${row.subject}`}>
                  <td>{row.label}{row.subject && ` of ${row.subject}`}</td>
                  <td>{row.first}</td>
                  <td>{row.second}</td>
                  <td><Mark kind={marks[row.state]} /> {row.state}{row.why && <><br /><Faint>{row.why}</Faint></>}</td>
                </tr>
              ))}
            </tbody>
          </StackedTable>
        </Scroll>
      )}
    </Part>
  )
}
