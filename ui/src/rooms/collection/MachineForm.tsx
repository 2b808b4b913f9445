import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { modelsQuery } from '../../api/identify'
import { type MachineFields, placesQuery } from '../../api/machines'
import { Field, FieldGrid } from '../../kit/Field'
import { RecordForm, textOf } from '../../kit/RecordForm'

type Props = {
  start?: MachineFields
  keptAs: string
  base?: unknown
  error: Error | null
  isPending: boolean
  action: string
  leave: string
  onSubmit: (fields: MachineFields) => void
  onCancel: () => void
}

/** What is written about a machine. */
export function MachineForm({ start, onSubmit, ...form }: Props) {
  const places = useQuery(placesQuery)
  const models = useQuery(modelsQuery('')).data ?? []
  const isProposed = start?.accession !== '' && start?.accession !== undefined && !('id' in start)
  const [notYears, setNotYears] = useState<Record<string, string>>({})
  const submit = (form: FormData) => {
    const odd = ['eraFrom', 'eraTo'].filter((name) => !/^\d*$/.test(textOf(form, name)))
    setNotYears(Object.fromEntries(odd.map((name) => [name, 'Write a year in figures, as 1984.'])))
    if (odd.length === 0) onSubmit(read(form, start))
  }
  return (
    <RecordForm {...form} wrong={notYears} onSubmit={submit}>
      <FieldGrid>
        <Field label="Accession number" name="accession" defaultValue={start?.accession} placeholder="EH-0142"
          isRequired autoFocus={!isProposed} maxLength={40} mono hint={isProposed ? 'The next one' : undefined} />
        <Field label="Name" name="name" defaultValue={start?.name} placeholder="Meridian 2" isRequired
          autoFocus={isProposed} />
        <Field label="Maker" name="maker" defaultValue={start?.maker} list="makers" />
        <Field label="Model" name="model" defaultValue={start?.model} list="models" />
        <Field label="Serial number" name="serial" defaultValue={start?.serial} mono />
        <Field label="Place" name="place" defaultValue={start?.place} list="places" />
        <Field label="Parts from (year)" name="eraFrom" defaultValue={start?.eraFrom?.toString()} inputMode="numeric"
          hint="Settles date codes with an open decade" />
        <Field label="Parts to (year)" name="eraTo" defaultValue={start?.eraTo?.toString()} inputMode="numeric" />
      </FieldGrid>
      <datalist id="places">{places.data?.map((place) => <option key={place} value={place} />)}</datalist>
      <datalist id="makers">{[...new Set(models.map(({ maker }) => maker))].map((maker) =>
        <option key={maker} value={maker} />)}</datalist>
      <datalist id="models">{models.map(({ id, maker, model }) =>
        <option key={id} value={model}>{maker}</option>)}</datalist>
      <Field label="Provenance" name="provenance" defaultValue={start?.provenance} rows={3} />
    </RecordForm>
  )
}

function read(form: FormData, start?: MachineFields): MachineFields {
  const text = (name: string) => textOf(form, name)
  // Other words may mean another model; the server finds it.
  const isSameModel = text('maker') === (start?.maker ?? '') && text('model') === (start?.model ?? '')
  const year = (name: string) => (text(name) === '' ? null : Number(text(name)))
  return {
    accession: text('accession'), name: text('name'), maker: text('maker'), model: text('model'),
      serial: text('serial'), modelId: isSameModel ? start?.modelId ?? null : null,
    place: text('place'), provenance: text('provenance'), eraFrom: year('eraFrom'), eraTo: year('eraTo'),
  }
}
