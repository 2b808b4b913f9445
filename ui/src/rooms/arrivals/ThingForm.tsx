import { useState } from 'react'

import type { LotThing, ThingFields } from '../../api/lots'
import { amountOf, readAmounts } from '../../kit/amount'
import { Choice, Field, FieldGrid, Tick } from '../../kit/Field'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { PickParty } from '../library/people/PickParty'

export const thingKinds: { value: ThingFields['kind']; text: string }[] = [
  { value: 'machine', text: 'machine' }, { value: 'board', text: 'board or card' },
    { value: 'peripheral', text: 'peripheral' }, { value: 'part', text: 'part' },
  { value: 'media', text: 'media' }, { value: 'document', text: 'document' },
]

type Props = {
  start?: LotThing
  byHand: boolean
  keptAs: string
  base?: unknown
  error: Error | null
  isPending: boolean
  action: string
  onSubmit: (fields: ThingFields) => void
  onCancel: () => void
}

/** What is written about a thing of a lot. */
export function ThingForm({ start, byHand, onSubmit, ...form }: Props) {
  const [kind, setKind] = useState<ThingFields['kind']>(start?.kind ?? 'board')
  const [party, setParty] = useState<number | null>(start?.passedTo ?? null)
  const [passing, setPassing] = useState(start?.passedOn !== undefined && start.passedOn !== '')
  const [wrong, setWrong] = useState<Record<string, string>>({})
  const inCollection = start !== undefined && (start.machineId !== null || start.assemblyId !== null)
  const submit = (data: FormData) => {
    const text = (name: string) => textOf(data, name)
    const names = ['estimateCents', 'valueCents', 'handCents', 'passedForCents']
    const { cents, wrong: odd } = readAmounts(Object.fromEntries(names.map((name) => [name, text(name)])))
    setWrong(odd)
    if (Object.keys(odd).length > 0) return
    onSubmit({
      kind, title: text('title'), estimateCents: cents.estimateCents ?? null, valueCents: cents.valueCents ?? null,
        valueNote: text('valueNote'), note: text('note'),
      handCents: byHand ? (cents.handCents ?? null) : (start?.handCents ?? null),
      passedOn: passing ? text('passedOn') : '', passedTo: passing ? party : null,
        passedForCents: passing ? (cents.passedForCents ?? null) : null,
    })
  }
  return (
    <RecordForm {...form} wrong={wrong} onSubmit={submit}>
      <FieldGrid>
        <Field label="What it is" name="title" defaultValue={start?.title} placeholder="Memory card, 384 KB" isRequired
          autoFocus />
        <Choice label="Kind" value={kind} options={thingKinds} onChange={setKind} />
        <Field label="Estimate when it came" name="estimateCents" defaultValue={amountOf(start?.estimateCents)}
          inputMode="decimal" mono />
        {byHand && <Field label="Share of the cost, by hand" name="handCents" defaultValue={amountOf(start?.handCents)}
          inputMode="decimal" mono />}
        <Field label="Worth today" name="valueCents" defaultValue={amountOf(start?.valueCents)} inputMode="decimal"
          mono />
        <Field label="How one knows" name="valueNote" defaultValue={start?.valueNote} />
        <Field label="Note" name="note" defaultValue={start?.note} />
      </FieldGrid>
      {!inCollection && <Tick label="It was passed on" isOn={passing} onChange={setPassing} />}
      {passing && (
        <FieldGrid>
          <Field label="Passed on when" name="passedOn" defaultValue={start?.passedOn} placeholder="2026-05" isRequired
            mono />
          <PickParty label="To" name="passedTo" start={{ id: start?.passedTo ?? null, name: start?.party ?? '' }}
            onPick={setParty} />
          <Field label="For how much" name="passedForCents" defaultValue={amountOf(start?.passedForCents)}
            inputMode="decimal" mono />
        </FieldGrid>
      )}
    </RecordForm>
  )
}
