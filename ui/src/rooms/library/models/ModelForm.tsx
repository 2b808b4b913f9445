import type { ModelFields } from '../../../api/identify'
import { Field, FieldGrid } from '../../../kit/Field'
import { signsExample, signsHint } from '../../../features/signs/notation'
import { RecordForm, textOf } from '../../../kit/RecordForm'

type Props = {
  start?: Partial<ModelFields>
  keptAs: string
  base?: unknown
  error: Error | null
  isPending: boolean
  action: string
  onSubmit: (fields: ModelFields) => void
  onCancel: () => void
}

/** What is written about a model of machines. */
export function ModelForm({ start, onSubmit, ...form }: Props) {
  const read = (data: FormData): ModelFields => {
    const text = (name: string) => textOf(data, name)
    return { maker: text('maker'), model: text('model'), made: text('made'), variants: text('variants'),
      expected: text('expected'), figures: text('figures'), facts: text('facts'), signs: text('signs'),
      note: text('note'), source: text('source') }
  }
  return (
    <RecordForm {...form} onSubmit={(data) => { onSubmit(read(data)) }}>
      <FieldGrid>
        <Field label="Maker" name="maker" defaultValue={start?.maker} isRequired autoFocus />
        <Field label="Model" name="model" defaultValue={start?.model} isRequired />
        <Field label="Made" name="made" defaultValue={start?.made} mono placeholder="1984/1988"
          hint="From and to, EDTF; ../1988 and 1984/.. for an open end" />
        <Field label="How one knows" name="source" defaultValue={start?.source} placeholder="price list of 1986" />
      </FieldGrid>
      <Field
        label="What belongs in it, an assembly a line"
        name="expected"
        defaultValue={start?.expected}
        rows={5}
        mono
        placeholder={'Main board | part 4410-2\nMemory card | part 4424-1 | option | from 1986'}
        hint="Name | part number | option | from date; the last three where they apply"
      />
      <Field
        label="What is told of it, a fact a line"
        name="facts"
        defaultValue={start?.facts}
        rows={5}
        mono
        placeholder={'processor = HX8810 | service handbook of 1985\nmemory = 64/256/640 KB | price list | 1986-03'}
        hint="Attribute = value | how one knows | date; without a source it counts as recalled"
      />
      <Field
        label="What it shows, a sign a line"
        name="signs"
        defaultValue={start?.signs}
        rows={5}
        mono
        placeholder={signsExample}
        hint={signsHint}
      />
      <Field
        label="What is measured and shown, a figure a line"
        name="figures"
        defaultValue={start?.figures}
        rows={3}
        mono
        placeholder={'+5 = 4.9 .. 5.2 V\nU3 pin 8 = 5 V +/- 2 %\ndisk size <= 504 MiB'}
        hint="A point = what it should have; or what the firmware shows <= the most that it can show"
      />
      <FieldGrid>
        <Field label="Variants, one a line" name="variants" defaultValue={start?.variants} rows={2} />
        <Field label="Note" name="note" defaultValue={start?.note} rows={2} />
      </FieldGrid>
    </RecordForm>
  )
}
