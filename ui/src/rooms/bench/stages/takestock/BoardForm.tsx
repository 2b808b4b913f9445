import { useState } from 'react'

import type { AssemblyFields } from '../../../../api/assemblies'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

type Fit = NonNullable<AssemblyFields['fit']>
type Purpose = NonNullable<AssemblyFields['purpose']>

const fits: { value: Fit; text: string }[] = [
  { value: 'unknown', text: 'not known' },
  { value: 'factory', text: 'factory' },
  { value: 'period', text: 'period upgrade' },
  { value: 'later', text: 'later' },
  { value: 'modern', text: 'modern' },
]

const purposes: { value: Purpose; text: string }[] = [
  { value: '', text: 'main, unless a line says' },
  { value: 'picture', text: 'picture' },
  { value: 'cache', text: 'cache' },
  { value: 'shared', text: 'shared' },
  { value: 'card', text: 'the card itself' },
]

type Props = {
  start: AssemblyFields
  error: Error | null
  isPending: boolean
  action: string
  onSubmit: (fields: AssemblyFields) => void
  onCancel: () => void
}

/** What is written about a board and how it is fitted. */
export function BoardForm({ start, onSubmit, ...form }: Props) {
  const [fit, setFit] = useState<Fit>(start.fit ?? 'unknown')
  const [purpose, setPurpose] = useState<Purpose>(start.purpose ?? '')
  const submit = (form: FormData) => {
    const text = (name: string) => textOf(form, name)
    onSubmit({ title: text('title'), part: text('part'), rev: text('rev'), serial: text('serial'), slot: text('slot'), fit, purpose })
  }
  return (
    <RecordForm {...form} onSubmit={submit}>
      <FieldGrid>
        <Field label="Name of the board" name="title" defaultValue={start.title} placeholder="Main board" isRequired autoFocus />
        <Field label="Part number" name="part" defaultValue={start.part} mono />
        <Field label="Revision" name="rev" defaultValue={start.rev} mono />
        <Field label="Serial number" name="serial" defaultValue={start.serial} mono />
        <Field label="Slot" name="slot" defaultValue={start.slot} mono />
        <Choice label="Fitted" value={fit} options={fits} onChange={setFit} />
        <Choice label="Its memory is for" value={purpose} options={purposes} onChange={setPurpose} />
      </FieldGrid>
    </RecordForm>
  )
}
