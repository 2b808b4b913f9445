import { useState } from 'react'

import type { FittedAssembly } from '../../../../api/assemblies'
import type { JobFields, UsualJob } from '../../../../api/work'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

type Props = { keptAs: string; base?: unknown; start?: JobFields; action: string; error: Error | null
  isPending: boolean; boards: FittedAssembly[]; usual: UsualJob[]; onSubmit: (fields: JobFields) => void
  onCancel: () => void }

/** What is to be done, by a usual job or in own words. */
export function JobForm({ start, boards, usual, onSubmit, ...form }: Props) {
  const [template, setTemplate] = useState(start?.template ?? '')
  const [board, setBoard] = useState(start?.assemblyId ? String(start.assemblyId) : '')
  const chosen = usual.find(({ key }) => key === template)
  return (
    <RecordForm {...form} onSubmit={(data) => {
      onSubmit({ title: textOf(data, 'title'), template, assemblyId: Number(board) || undefined, place: textOf(data, 'place'),
        findingKeys: start?.findingKeys ?? [], needs: textOf(data, 'needs').split(';').map((one) => one.trim()).filter(Boolean),
        proof: textOf(data, 'proof'), temporary: textOf(data, 'temporary'), note: textOf(data, 'note'),
        picturesBefore: start?.picturesBefore, picturesAfter: start?.picturesAfter })
    }}>
      <FieldGrid>
        <Choice label="Usual job" name="template" value={template} onChange={setTemplate}
          options={[{ value: '', text: 'none of these' }, ...usual.map(({ key, title }) => ({ value: key, text: title }))]} />
        <Field label="What is to be done" name="title" defaultValue={start?.title} isRequired={!chosen}
          placeholder={chosen?.title ?? 'Straighten the bent pin'} />
        <Choice label="On" name="board" value={board} onChange={setBoard} options={[{ value: '', text: 'the machine as a whole' },
          ...boards.map(({ id, title }) => ({ value: String(id), text: title }))]} />
        <Field label="Where on it" name="place" defaultValue={start?.place} mono placeholder="BT1" />
        <Field label="Waits for these parts" name="needs" defaultValue={start?.needs?.join('; ')}
          placeholder="NiMH 3.6V 60mAh; white vinegar" hint="Several with ; between; none where all is there" />
        <Field label="The test that proves it" name="proof" defaultValue={start?.proof} placeholder={chosen?.proof} />
        <Field label="Temporary: the lasting repair is due by" name="temporary" defaultValue={start?.temporary} mono
          placeholder="2027-06-30" />
      </FieldGrid>
      <Field label="Note" name="note" rows={2} defaultValue={start?.note} />
    </RecordForm>
  )
}
