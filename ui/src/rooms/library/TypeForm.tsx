import { useState } from 'react'

import type { OwnTypeFields } from '../../api/library'
import { Choice, Field, FieldGrid } from '../../kit/Field'
import { RecordForm, textOf } from '../../kit/RecordForm'

type Class = NonNullable<OwnTypeFields['class']>

const classes: { value: Class; text: string }[] = [
  { value: 'own', text: 'anything else' },
  { value: 'support', text: 'support chip' },
  { value: 'logic', text: 'logic' },
  { value: 'dram', text: 'dynamic RAM' },
  { value: 'sram', text: 'static RAM' },
  { value: 'eprom', text: 'EPROM' },
  { value: 'eeprom', text: 'EEPROM' },
  { value: 'flash', text: 'flash memory' },
  { value: 'mask-rom', text: 'mask ROM' },
  { value: 'prom', text: 'PROM' },
]

const memories: Class[] = ['dram', 'sram', 'eprom', 'eeprom', 'flash', 'mask-rom', 'prom']

type Props = {
  start: Partial<OwnTypeFields>
  keptAs: string
  base?: unknown
  error: Error | null
  isPending: boolean
  action: string
  onSubmit: (fields: OwnTypeFields) => void
  onCancel: () => void
}

/** What is written about a type that the collection names itself. */
export function TypeForm({ start, onSubmit, ...form }: Props) {
  const [kind, setKind] = useState<Class>(start.class ?? 'own')
  const [notFigures, setNotFigures] = useState<Record<string, string>>({})
  const isMemory = memories.includes(kind)

  const submit = (form: FormData) => {
    const text = (name: string) => textOf(form, name)
    const figure = (name: string) => Number(text(name))
    const odd = ['words', 'bits', 'clockMHz', 'typicalMilliamps'].filter((name) => !Number.isFinite(figure(name)))
    setNotFigures(Object.fromEntries(odd.map((name) => [name, 'Write a number, as 16384 or 4.5.'])))
    if (odd.length > 0) return
    onSubmit({
      number: text('number'), function: text('function'), class: kind, package: text('package'), notes: text('notes'),
      words: isMemory ? figure('words') : 0, bits: isMemory ? figure('bits') : 0,
      clockMHz: figure('clockMHz'), typicalMilliamps: figure('typicalMilliamps'),
      maker: text('maker'), currents: text('currents'), ageing: text('ageing'), substitutes: text('substitutes'),
        documents: text('documents'),
    })
  }
  const written = (value: number | undefined) => (value ? String(value) : '')
  return (
    <RecordForm {...form} wrong={notFigures} onSubmit={submit}>
      <FieldGrid>
        <Field label="Device number" name="number" defaultValue={start.number} placeholder="HX9040" isRequired
          autoFocus={!start.number} mono hint="Without speed and package" />
        <Field label="What it does" name="function" defaultValue={start.function} placeholder="processor, 8 bits"
          isRequired autoFocus={Boolean(start.number)} />
        <Choice label="Class" value={kind} options={classes} onChange={setKind} />
        {isMemory && <Field label="Words" name="words" defaultValue={written(start.words)} inputMode="numeric"
          placeholder="16384" />}
        {isMemory && <Field label="Bits in a word" name="bits" defaultValue={written(start.bits)} inputMode="numeric"
          placeholder="8" />}
        <Field label="Package" name="package" defaultValue={start.package} placeholder="DIP-40" />
        <Field label="Rated clock, MHz" name="clockMHz" defaultValue={written(start.clockMHz)} inputMode="decimal" />
        <Field label="Typical +5 V current, mA" name="typicalMilliamps" defaultValue={written(start.typicalMilliamps)}
          inputMode="decimal" />
        <Field label="Current by rail, mA" name="currents" defaultValue={start.currents}
          placeholder="+5 180/260, +12 20" mono hint="Typically / at most" />
        <Field label="Maker" name="maker" defaultValue={start.maker} />
        <Field label="What can take its place" name="substitutes" defaultValue={start.substitutes}
          placeholder="HX9040A, HX9050" mono />
        <Field label="How it ages" name="ageing" defaultValue={start.ageing} placeholder="loses its charge" />
      </FieldGrid>
      <Field label="Documents, one a line" name="documents" defaultValue={start.documents} rows={2} />
      <Field label="Notes" name="notes" defaultValue={start.notes} rows={2} />
    </RecordForm>
  )
}
