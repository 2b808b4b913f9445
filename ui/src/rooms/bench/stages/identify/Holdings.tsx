import { useState } from 'react'
import { Link } from 'react-router'

import { type Dated, useAddModel } from '../../../../api/identify'
import type { Machine } from '../../../../api/machines'
import { useAccount } from '../../../../api/session'
import { Button } from '../../../../kit/Button'
import { ListTable, Scroll } from '../../../../kit/ListTable'
import { Mark, type MarkKind } from '../../../../kit/Mark'
import { Part } from '../../../../kit/Part'
import { ModelForm } from '../../../library/models/ModelForm'

type State = Dated['holdings'][number]['state']

const marks: Record<State, MarkKind> = {
  fitted: 'done', missing: 'problem', 'option fitted': 'done', 'option not fitted': 'none', extra: 'attention',
    'not original': 'attention', 'other part number': 'attention',
}

/** What machines of the model hold, beside what this one does. */
export function Holdings({ machine, dated }: { machine: Machine; dated: Dated }) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [adding, setAdding] = useState(false)
  const add = useAddModel()
  const known = dated.model
  const name = [machine.maker, machine.model].filter(Boolean).join(' ')
  return (
    <Part
      title="What the model holds"
      faint={known && <>{known.maker} {known.model}{known.made && `, made ${known.made}`}
        {known.source && ` (${known.source})`}</>}
      action={known ? <Link to={`/library/models/${String(known.id)}`}>
        the model in the library
      </Link> : mayWrite && name && <Button $small onPress={() => { setAdding(true) }}>Describe the model</Button>}
    >
      {adding && (
        <ModelForm
          keptAs={`model of machine ${String(machine.id)}`}
          start={{ maker: machine.maker ?? '', model: machine.model ?? '' }}
          error={add.error}
          isPending={add.isPending}
          action="Add the model"
          onSubmit={(fields) => { add.mutate(fields, { onSuccess: () => { setAdding(false) } }) }}
          onCancel={() => { setAdding(false) }}
        />
      )}
      {!known && !adding && <p>
        {name ? `${name} is not in the library: when it was made and what belongs in it is not known.`
          : 'The record names no maker and model yet.'}
      </p>}
      {known?.variants && <p>Variants: {known.variants.split('\n').join(', ')}</p>}
      {known && dated.holdings.length === 0 && <p>Nobody has written down yet what belongs in a machine of this
        model.</p>}
      {dated.holdings.length > 0 && (
        <Scroll>
          <ListTable>
            <thead><tr><th>State</th><th>Assembly</th><th>Part number</th><th>Why</th></tr></thead>
            <tbody>
              {dated.holdings.map((row, i) => (
                <tr key={`${String(row.fittedId)} ${row.title} ${String(i)}`}>
                  <td style={{ whiteSpace: 'nowrap' }}><Mark kind={marks[row.state]} /> {row.state}</td>
                  <td>{row.title}</td>
                  <td>{row.part}</td>
                  <td>{row.why}</td>
                </tr>
              ))}
            </tbody>
          </ListTable>
        </Scroll>
      )}
    </Part>
  )
}
