import { type MachineModel, useChangeModel } from '../../../api/identify'
import { EditRecord } from '../../../kit/EditRecord'
import { ModelForm } from './ModelForm'

/** Edits a model. */
export function EditModel({ model, onDone }: { model: MachineModel; onDone: () => void }) {
  const change = useChangeModel(model.id)
  const names = { maker: 'maker', model: 'model', made: 'made', expected: 'what belongs in it',
    figures: 'what is measured and shown', facts: 'what is told of it', signs: 'what it shows',
    source: 'how one knows', note: 'note', variants: 'variants' }
  return (
    <EditRecord keptAs={`model ${String(model.id)}`}
      record={model} change={change} newerIn={(newer) => newer.model} names={names} onDone={onDone}>
      {(form) => <ModelForm start={model} action="Save" {...form} />}
    </EditRecord>
  )
}
