import { useState } from 'react'

import type { RungFields } from '../../../../api/power'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

type Props = { keptAs: string; base?: unknown; start?: RungFields; action: string; error: Error | null
  isPending: boolean; onSubmit: (rung: RungFields) => void; onCancel: () => void }

/** One rung: what is in, what one expects, and when one stops. */
export function RungForm({ start, onSubmit, ...form }: Props) {
  const [kind, setKind] = useState(start?.kind ?? 'add')
  return (
    <RecordForm {...form} onSubmit={(data) => {
      onSubmit({ step: textOf(data, 'step'), kind, sign: textOf(data, 'sign'), stop: textOf(data, 'stop') })
    }}>
      <FieldGrid>
        <Field label="What is in, or added" name="step" defaultValue={start?.step} isRequired autoFocus
          placeholder="disk controller" />
        <Choice label="Kind" name="kind" value={kind} onChange={setKind} options={[{ value: 'minimum', text: 'the minimum' },
          { value: 'add', text: 'one addition' }]} />
        <Field label="Expected sign" name="sign" defaultValue={start?.sign} placeholder="its lamp, then the prompt" />
        <Field label="Stop when" name="stop" defaultValue={start?.stop} placeholder="the +5 rail sags, a chip gets hot" />
      </FieldGrid>
    </RecordForm>
  )
}
