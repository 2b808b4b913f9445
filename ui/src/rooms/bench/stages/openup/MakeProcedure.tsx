import { useMakeProcedure } from '../../../../api/openup'
import { Field } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

/** Makes a log the procedure from which the next machine of the model starts. */
export function MakeProcedure({ teardownId, onDone }: { teardownId: number; onDone: () => void }) {
  const make = useMakeProcedure(teardownId)
  return (
    <RecordForm
      keptAs={`procedure from ${String(teardownId)}`}
      error={make.error}
      isPending={make.isPending}
      action="Make it a procedure"
      onSubmit={(form) => { make.mutate({ title: textOf(form, 'title'), warnings: textOf(form, 'warnings') },
        { onSuccess: onDone }) }}
      onCancel={onDone}
    >
      <Field label="How far it goes" name="title" isRequired autoFocus placeholder="Down to the main board" />
      <Field label="What to know before one starts" name="warnings" rows={2}
        placeholder="The front clips are brittle; a long PH1 is needed." />
    </RecordForm>
  )
}
