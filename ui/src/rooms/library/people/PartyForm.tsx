import { useState } from 'react'

import type { PartyFields } from '../../../api/parties'
import { Choice, Field, FieldGrid, Tick } from '../../../kit/Field'
import { RecordForm, textOf } from '../../../kit/RecordForm'

type Props = {
  start?: Partial<PartyFields>
  keptAs: string
  base?: unknown
  error: Error | null
  isPending: boolean
  action: string
  onSubmit: (fields: PartyFields) => void
  onCancel: () => void
}

/** What is written about a person or an organisation. */
export function PartyForm({ start, onSubmit, ...form }: Props) {
  const [kind, setKind] = useState<PartyFields['kind']>(start?.kind ?? 'organisation')
  const [isPrivate, setPrivate] = useState(start?.private ?? false)
  const read = (data: FormData): PartyFields => ({
    name: textOf(data, 'name'), kind, private: kind === 'person' && isPrivate, role: textOf(data, 'role'),
    spellings: textOf(data, 'spellings'), place: textOf(data, 'place'), note: textOf(data, 'note'),
  })
  return (
    <RecordForm {...form} onSubmit={(data) => { onSubmit(read(data)) }}>
      <FieldGrid>
        <Field label="Name" name="name" defaultValue={start?.name} isRequired autoFocus />
        <Choice label="Kind" value={kind}
          options={[{ value: 'organisation', text: 'organisation' }, { value: 'person', text: 'person' }]}
            onChange={setKind} />
        <Field label="Place" name="place" defaultValue={start?.place} />
      </FieldGrid>
      {kind === 'person' && <Tick label="A private person: the name is for staff only" isOn={isPrivate}
        onChange={setPrivate} />}
      <FieldGrid>
        <Field label={kind === 'person' && isPrivate ? 'What everybody may know in place of the name' : 'Role'}
          name="role" defaultValue={start?.role} placeholder="a former pilot" />
        {kind === 'person' && isPrivate && (
          <Field label="Other ways in which the name is written, a line each" name="spellings"
            defaultValue={start?.spellings} rows={2} />
        )}
        <Field label="Note" name="note" defaultValue={start?.note} rows={2} />
      </FieldGrid>
    </RecordForm>
  )
}
