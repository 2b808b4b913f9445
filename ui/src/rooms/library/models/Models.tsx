import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { modelsQuery, useAddModel } from '../../../api/identify'
import { messageOf } from '../../../api/problem'
import { useAccount } from '../../../api/session'
import { Button } from '../../../kit/Button'
import { ListHead } from '../../../kit/ListHead'
import { Figure, ListTable, Scroll } from '../../../kit/ListTable'
import { Notice } from '../../../kit/Notice'
import { Faint, Page } from '../../../kit/Page'
import { useFilters } from '../../../kit/useFilters'
import { usePanel } from '../../../kit/usePanel'
import { EditModel } from './EditModel'
import { ModelForm } from './ModelForm'

/** Models of machines: when they were made, and what belongs in them. */
export default function Models() {
  const [parameters, setParameters] = useFilters()
  const words = parameters.get('search') ?? ''
  const models = useQuery(modelsQuery(words))
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [adding, setAdding] = usePanel('model')
  const [editing, setEditing] = useState<number>()
  const add = useAddModel()
  return (
    <Page>
      <ListHead title="Models of machines" label="Filter by words in maker, model, variant" words={words}
        onWords={(next) => { setParameters(next ? { search: next } : {}) }}>
        {mayWrite && <Button $tone="main" onPress={() => { setAdding(true) }}>Add a model</Button>}
      </ListHead>
      <p><Faint>A machine that is entered with the maker and model of one refers to it. <Link to="/library">
        Back to the library
      </Link></Faint></p>
      {adding && (
        <ModelForm
          keptAs="new model"
          error={add.error}
          isPending={add.isPending}
          action="Add the model"
          onSubmit={(fields) => { add.mutate(fields, { onSuccess: () => { setAdding(false) } }) }}
          onCancel={() => { setAdding(false) }}
        />
      )}
      {models.error && <Notice tone="stop" word="Not listed.">{messageOf(models.error)}</Notice>}
      {models.data?.filter(({ id }) => id === editing).map((model) =>
        <EditModel key={model.id} model={model} onDone={() => { setEditing(undefined) }} />)}
      {models.data && models.data.length > 0 && (
        <Scroll>
          <ListTable>
            <thead><tr><th>Maker and model</th><th>Made</th><th>What belongs in it</th><th>How one knows</th>
              <Figure as="th">Machines</Figure><th><span className="only-read">Edit</span></th></tr></thead>
            <tbody>
              {models.data.map((model) => (
                <tr key={model.id}>
                  <td>{model.maker} <Link to={`/library/models/${String(model.id)}`}>{model.model}</Link>
                    {model.variants && <><br /><Faint>{model.variants.split('\n').join(', ')}</Faint></>}</td>
                  <td style={{ whiteSpace: 'nowrap' }}>{model.made}</td>
                  <td>{(model.expected ?? '').split('\n').filter(Boolean).map((line) =>
                    line.split('|').map((cell) => cell.trim()).join(', ')).join('; ')}
                    {model.figures && <><br /><Faint>{model.figures.split('\n').join('; ')}</Faint></>}</td>
                  <td>{model.source}</td>
                  <Figure>{model.machines}</Figure>
                  <td>{mayWrite && <Button $tone="quiet" aria-label={`Edit ${model.maker} ${model.model}`}
                    onPress={() => { setEditing(model.id) }}>Edit</Button>}</td>
                </tr>
              ))}
            </tbody>
          </ListTable>
        </Scroll>
      )}
      {models.data?.length === 0 && <p>
        {words ? 'No model has all of these words.'
          : 'No model is described yet. Describe that of a machine in its stage Identify, or add one here.'}
      </p>}
    </Page>
  )
}
