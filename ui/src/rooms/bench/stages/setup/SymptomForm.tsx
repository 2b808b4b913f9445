import { useState } from 'react'

import type { DiagnosisFields } from '../../../../api/diagnosis'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

type Fields = Pick<DiagnosisFields, 'symptom' | 'since' | 'state' | 'cause' | 'note'>
type Props = { keptAs: string; base?: unknown; start?: Fields; action: string; error: Error | null; isPending: boolean
  onSubmit: (fields: Fields) => void; onCancel: () => void }

/** A symptom in words; once its cause is found, what that was. */
export function SymptomForm({ start, onSubmit, ...form }: Props) {
  const [state, setState] = useState<NonNullable<Fields['state']>>(start?.state ?? 'open')
  return (
    <RecordForm {...form} onSubmit={(data) => {
      onSubmit({ symptom: textOf(data, 'symptom'), since: textOf(data, 'since'), state,
        cause: state === 'found' ? textOf(data, 'cause') : '', note: textOf(data, 'note') })
    }}>
      <FieldGrid>
        <Field label="What it does, or does not" name="symptom" defaultValue={start?.symptom} isRequired
          placeholder="no picture for the first ten minutes" />
        <Field label="Since" name="since" defaultValue={start?.since} mono placeholder="today" />
        {start && <Choice label="How far it is" name="state" value={state} onChange={setState} options={[
          { value: 'open', text: 'the cause is looked for' }, { value: 'found', text: 'the cause is found' },
          { value: 'given up', text: 'given up' }]} />}
      </FieldGrid>
      {state === 'found' && <Field label="What it was" name="cause" rows={2} defaultValue={start?.cause} isRequired />}
      <Field label="Note" name="note" rows={2} defaultValue={start?.note} />
    </RecordForm>
  )
}
