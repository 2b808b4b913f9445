import { type ReactNode, useState } from 'react'

import type { AssemblyFields, AssemblyKind } from '../../../../api/assemblies'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

export type Fit = NonNullable<AssemblyFields['fit']>
type Purpose = NonNullable<AssemblyFields['purpose']>

export const fits: { value: Fit; text: string }[] = [
  { value: 'unknown', text: 'not known' },
  { value: 'factory', text: 'factory' },
  { value: 'period', text: 'period upgrade' },
  { value: 'later', text: 'later' },
  { value: 'modern', text: 'modern' },
]

const kinds: { value: AssemblyKind; text: string }[] = [
  { value: 'board', text: 'board' },
  { value: 'card', text: 'card' },
  { value: 'drive', text: 'drive' },
  { value: 'supply', text: 'power supply' },
  { value: 'keyboard', text: 'keyboard' },
  { value: 'monitor', text: 'monitor' },
  { value: 'other', text: 'something else' },
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
  keptAs: string
  base?: unknown
  error: Error | null
  isPending: boolean
  action: string
  onSubmit: (fields: AssemblyFields, form: FormData) => void
  onCancel: () => void
  children?: ReactNode
}

/** What is written about a board and how it is fitted. */
export function BoardForm({ start, onSubmit, children, ...form }: Props) {
  const [kind, setKind] = useState<AssemblyKind>(start.kind ?? 'board')
  const [fit, setFit] = useState<Fit>(start.fit ?? 'unknown')
  const [purpose, setPurpose] = useState<Purpose>(start.purpose ?? '')
  const submit = (form: FormData) => {
    const text = (name: string) => textOf(form, name)
    onSubmit({ kind, title: text('title'), part: text('part'), rev: text('rev'), serial: text('serial'),
      slot: text('slot'), fit, purpose }, form)
  }
  return (
    <RecordForm {...form} onSubmit={submit}>
      <FieldGrid>
        <Field label="Name of the board" name="title" defaultValue={start.title} placeholder="Main board" isRequired
          autoFocus />
        <Choice label="It is a" value={kind} options={kinds} onChange={setKind} />
        <Field label="Part number" name="part" defaultValue={start.part} mono />
        <Field label="Revision" name="rev" defaultValue={start.rev} mono />
        <Field label="Serial number" name="serial" defaultValue={start.serial} mono />
        <Field label="Slot" name="slot" defaultValue={start.slot} mono />
        <Choice label="Fitted" value={fit} options={fits} onChange={setFit} />
        <Choice label="Its memory is for" value={purpose} options={purposes} onChange={setPurpose} />
      </FieldGrid>
      {children}
    </RecordForm>
  )
}
