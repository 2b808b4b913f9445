import { useQuery } from '@tanstack/react-query'
import { type FormEvent, type ReactNode, useState } from 'react'

import { type MachineFields, placesQuery } from '../../api/machines'
import { messageOf, ProblemError } from '../../api/problem'
import { Buttons } from '../../kit/Button'
import { Field, FieldGrid, FormPanel } from '../../kit/Field'
import { Notice } from '../../kit/Notice'

type Props = {
  start?: MachineFields
  error: Error | null
  onSubmit: (fields: MachineFields) => void
  children: ReactNode // the buttons
}

/** What is written about a machine. Fields keep what was typed whatever the server says. */
export function MachineForm({ start, error, onSubmit, children }: Props) {
  const places = useQuery(placesQuery)
  const [notYears, setNotYears] = useState<Record<string, string>>({})
  const wrong = { ...(error instanceof ProblemError ? error.fields : {}), ...notYears }
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const form = new FormData(event.currentTarget)
    const odd = ['eraFrom', 'eraTo'].filter((name) => !/^\s*\d*\s*$/.test(text(form, name)))
    setNotYears(Object.fromEntries(odd.map((name) => [name, 'Write a year in figures, as 1984.'])))
    if (odd.length === 0) onSubmit(read(form))
  }
  return (
    <FormPanel onSubmit={submit} validationErrors={wrong} validationBehavior="aria">
      <FieldGrid>
        <Field label="Accession number" name="accession" defaultValue={start?.accession} placeholder="EH-0142" isRequired autoFocus maxLength={40} mono />
        <Field label="Name" name="name" defaultValue={start?.name} placeholder="Meridian 2" isRequired />
        <Field label="Maker" name="maker" defaultValue={start?.maker} />
        <Field label="Model" name="model" defaultValue={start?.model} />
        <Field label="Serial number" name="serial" defaultValue={start?.serial} mono />
        <Field label="Place" name="place" defaultValue={start?.place} list="places" />
        <Field label="Parts from (year)" name="eraFrom" defaultValue={start?.eraFrom?.toString()} inputMode="numeric" hint="Settles date codes with an open decade" />
        <Field label="Parts to (year)" name="eraTo" defaultValue={start?.eraTo?.toString()} inputMode="numeric" />
      </FieldGrid>
      <datalist id="places">{places.data?.map((place) => <option key={place} value={place} />)}</datalist>
      <Field label="Provenance" name="provenance" defaultValue={start?.provenance} rows={3} />
      {error && !Object.keys(wrong).length && <Notice tone="stop" word="Not kept.">{messageOf(error)}</Notice>}
      <Buttons>{children}</Buttons>
    </FormPanel>
  )
}

const text = (form: FormData, name: string) => String(form.get(name) ?? '')

function read(form: FormData): MachineFields {
  const year = (name: string) => (text(form, name).trim() === '' ? null : Number(text(form, name)))
  return {
    accession: text(form, 'accession'), name: text(form, 'name'), maker: text(form, 'maker'), model: text(form, 'model'),
    serial: text(form, 'serial'), place: text(form, 'place'), provenance: text(form, 'provenance'),
    eraFrom: year('eraFrom'), eraTo: year('eraTo'),
  }
}
