import { useState } from 'react'

import type { Schemas } from '../../../../api/client'
import type { BackplaneFields } from '../../../../api/setup'
import { Button, Buttons } from '../../../../kit/Button'
import { Field } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

type Fields = BackplaneFields
type Props = { keptAs: string; base?: unknown; start: Fields; offered: Schemas['OfferedBackplane'][]; error: Error | null
  isPending: boolean; onSubmit: (fields: Fields) => void; onCancel: () => void }

/** How the slots stand, as text: a row a line. What others of the model have can be taken over. */
export function BackplaneForm({ start, offered, onSubmit, ...form }: Props) {
  const [layout, setLayout] = useState(start.layout)
  return (
    <RecordForm {...form} action="Save" onSubmit={(data) => { onSubmit({ layout, note: textOf(data, 'note') }) }}>
      {offered.length > 0 && <Buttons>{offered.map((one) => <Button key={one.accession} $small
        onPress={() => { setLayout(one.layout) }}>As in {one.accession}</Button>)}</Buttons>}
      <Field label="Backplane" name="layout" rows={6} mono value={layout} onChange={setLayout}
        placeholder={'row top | quad | 1 2 3 4\nrow bottom | quad | 5 6 7 8\nchain 1 2 3 4 8 7 6 5\nrail +5 | 20 A'}
        hint="A line each: chassis, row with its kind and slots as they stand, the chain in bus order, takes 16-bit | 8-bit, rail with what it may give, base with what is drawn beside the cards" />
      <Field label="Note" name="note" rows={2} defaultValue={start.note} />
    </RecordForm>
  )
}
