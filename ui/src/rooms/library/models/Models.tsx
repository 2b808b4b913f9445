import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'

import { type MachineModel, modelsQuery, useAddModel, useChangeModel } from '../../../api/identify'
import { messageOf } from '../../../api/problem'
import { useAccount } from '../../../api/session'
import { Button } from '../../../kit/Button'
import { EditRecord } from '../../../kit/EditRecord'
import { ListHead } from '../../../kit/ListHead'
import { Figure, ListTable, Scroll } from '../../../kit/ListTable'
import { Notice } from '../../../kit/Notice'
import { Faint, Page } from '../../../kit/Page'
import { ModelForm } from './ModelForm'

/** Models of machines: when they were made, and what belongs in them. */
export default function Models() {
  const [parameters, setParameters] = useSearchParams()
  const words = parameters.get('search') ?? ''
  const models = useQuery(modelsQuery(words))
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [adding, setAdding] = useState(false)
  const [editing, setEditing] = useState<number>()
  const add = useAddModel()
  return (
    <Page>
      <ListHead title="Models of machines" label="Filter by words in maker, model, variant" words={words}
        onWords={(next) => { setParameters(next ? { search: next } : {}, { replace: true }) }}>
        {mayWrite && <Button $tone="main" onPress={() => { setAdding(true) }}>Add a model</Button>}
      </ListHead>
      <p><Faint>A machine is of a model when its record names the same maker and model. <Link to="/library">
        Back to the library
      </Link></Faint></p>
      {adding && (
        <ModelForm
          error={add.error}
          isPending={add.isPending}
          action="Add the model"
          onSubmit={(fields) => { add.mutate(fields, { onSuccess: () => { setAdding(false) } }) }}
          onCancel={() => { setAdding(false) }}
        />
      )}
      {models.error && <Notice tone="stop" word="Not listed.">{messageOf(models.error)}</Notice>}
      {models.data?.filter(({ id }) => id === editing).map((model) =>
        <Edit key={model.id} model={model} onDone={() => { setEditing(undefined) }} />)}
      {models.data && models.data.length > 0 && (
        <Scroll>
          <ListTable>
            <thead><tr><th>Maker and model</th><th>Made</th><th>What belongs in it</th><th>How one knows</th>
              <Figure as="th">Machines</Figure><th><span className="only-read">Edit</span></th></tr></thead>
            <tbody>
              {models.data.map((model) => (
                <tr key={model.id}>
                  <td>{model.maker} <strong>{model.model}</strong>
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

function Edit({ model, onDone }: { model: MachineModel; onDone: () => void }) {
  const change = useChangeModel(model.id)
  const names = { maker: 'maker', model: 'model', made: 'made', expected: 'what belongs in it',
    figures: 'what is measured and shown',
    source: 'how one knows', note: 'note', variants: 'variants' }
  return (
    <EditRecord record={model} change={change} newerIn={(newer) => newer.model} names={names} onDone={onDone}>
      {(form) => <ModelForm start={model} action="Keep it" {...form} />}
    </EditRecord>
  )
}
