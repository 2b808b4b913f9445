import { useState } from 'react'

import type { KnownFields } from '../../../api/known'
import { Choice, Field, FieldGrid } from '../../../kit/Field'
import { signsExample, signsHint } from '../../../features/signs/notation'
import { RecordForm, textOf } from '../../../kit/RecordForm'

type Kind = NonNullable<KnownFields['kind']>

type Props = {
  start?: Partial<KnownFields>
  keptAs: string
  base?: unknown
  error: Error | null
  isPending: boolean
  action: string
  onSubmit: (fields: KnownFields) => void
  onCancel: () => void
}

/** What is written about an assembly that is recognised wherever it is. */
export function KnownForm({ start, onSubmit, ...form }: Props) {
  const [kind, setKind] = useState<Kind>(start?.kind ?? 'card')
  const read = (data: FormData): KnownFields => {
    const text = (name: string) => textOf(data, name)
    return { kind, name: text('name'), maker: text('maker'), numbers: text('numbers'), revisions: text('revisions'),
      printed: text('printed'), chips: text('chips'), details: text('details'), signs: text('signs'), note: text('note'),
      source: text('source') }
  }
  return (
    <RecordForm {...form} onSubmit={(data) => { onSubmit(read(data)) }}>
      <FieldGrid>
        <Field label="What it is" name="name" defaultValue={start?.name} isRequired autoFocus
          placeholder="Memory card, 384 KB" />
        <Choice label="Sort" value={kind} options={kinds} onChange={setKind} />
        <Field label="Maker" name="maker" defaultValue={start?.maker} />
        <Field label="How one knows" name="source" defaultValue={start?.source} placeholder="price list of 1986"
          hint="Without it, it counts as recalled" />
      </FieldGrid>
      <FieldGrid>
        <Field label="Part numbers, one a line" name="numbers" defaultValue={start?.numbers} rows={2} mono
          placeholder="4424-1" hint="Dashes, blanks and letters before the first digit do not matter" />
        <Field label="Of revisions" name="revisions" defaultValue={start?.revisions} mono placeholder="A, C-E"
          hint="Empty for every one" />
        <Field label="Printed on it, one a line" name="printed" defaultValue={start?.printed} rows={2}
          hint="Only words that are on no other" />
        <Field label="Chips that tell it, a type a line" name="chips" defaultValue={start?.chips} rows={2} mono
          placeholder={'8x 41256\n74LS245'} hint="At least four types; then it needs no number" />
      </FieldGrid>
      <Field
        label="What is known of it, a line each"
        name="details"
        defaultValue={start?.details}
        rows={8}
        mono
        placeholder={example}
        hint={`Lines begin with ${words}; strokes divide the rest`}
      />
      <Field label="What it shows, a sign a line" name="signs" defaultValue={start?.signs} rows={4} mono
        placeholder={signsExample} hint={signsHint} />
      <Field label="Note" name="note" defaultValue={start?.note} rows={2} />
    </RecordForm>
  )
}

const kinds: { value: Kind; text: string }[] = [
  { value: 'board', text: 'board' }, { value: 'card', text: 'card' }, { value: 'drive', text: 'drive' },
  { value: 'supply', text: 'supply' }, { value: 'keyboard', text: 'keyboard' }, { value: 'monitor', text: 'monitor' },
  { value: 'lead', text: 'lead' }, { value: 'other', text: 'other' },
]

const words = 'connector, pin, jumper, switch, needs, gives, covers, current, memory, fits, revision, upgrade, fault and '
  + 'document'

const example = `connector J1 | DE-9 socket | monitor
pin J1.1 | ground
jumper JP1 | 1-2 = 256 KB | 2-3 = 512 KB
needs slot | 8-bit
current +5 | 1.2 A
memory 384 KB | main
fault C12 leaking: green below it | look below C12
fits Meridian 2 | without the second drive`
