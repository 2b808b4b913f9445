import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { placesQuery } from '../../api/machines'
import type { StockFields } from '../../api/stores'
import { amountOf, readAmounts } from '../../kit/amount'
import { Choice, Field, FieldGrid } from '../../kit/Field'
import { RecordForm, textOf } from '../../kit/RecordForm'

type Props = { keptAs: string; base?: unknown; start?: StockFields; action: string; error: Error | null
  isPending: boolean; currency?: string; onSubmit: (fields: StockFields) => void; onCancel: () => void }

/** A drawer of the stores: what lies there, how many, in which state, and where. */
export function StockForm({ start, currency, onSubmit, ...form }: Props) {
  const places = useQuery(placesQuery)
  const [kind, setKind] = useState<NonNullable<StockFields['kind']>>(start?.kind ?? 'component')
  const [condition, setCondition] = useState<NonNullable<StockFields['condition']> | ''>(start?.condition ?? '')
  const [wrong, setWrong] = useState<Record<string, string>>({})
  return (
    <RecordForm {...form} wrong={wrong} onSubmit={(data) => {
      const amounts = readAmounts({ priceCents: textOf(data, 'priceCents') })
      const figures = { count: textOf(data, 'count') || '1', minimum: textOf(data, 'minimum') || '0' }
      const odd = Object.entries(figures).filter(([, text]) => !/^\d{1,6}$/.test(text))
      const found = { ...amounts.wrong, ...Object.fromEntries(odd.map(([name]) => [name,
        'Write a whole number of pieces.'])) }
      setWrong(found)
      if (Object.keys(found).length > 0) return
      onSubmit({ what: textOf(data, 'what'), kind, condition: condition || undefined, count: Number(figures.count),
        minimum: Number(figures.minimum), dateCode: textOf(data, 'dateCode'), place: textOf(data, 'place'),
        source: textOf(data, 'source'), priceCents: amounts.cents.priceCents ?? undefined, backBy: textOf(data, 'backBy'),
        backTo: textOf(data, 'backTo'), model: textOf(data, 'model'), material: textOf(data, 'material'),
        why: textOf(data, 'why'), note: textOf(data, 'note') })
    }}>
      <FieldGrid>
        <Field label="What it is" name="what" defaultValue={start?.what} mono isRequired
          placeholder="470u/16V radial 105C" hint="As it stands on it: needs are compared with it" />
        <Field label="Count" name="count" inputMode="numeric" defaultValue={start ? String(start.count) : undefined} placeholder="1" />
        <Choice label="State" name="condition" value={condition} onChange={setCondition} options={[{ value: '', text: 'not said' },
          { value: 'new', text: 'new' }, { value: 'used-good', text: 'used, good' }, { value: 'untested', text: 'untested' },
          { value: 'faulty', text: 'faulty: kept, not used' }]} />
        <Field label="Where it lies" name="place" defaultValue={start?.place} list="places-of-parts" placeholder="Store, box 3" />
        <Choice label="Kind" name="kind" value={kind} onChange={setKind} options={[{ value: 'component', text: 'component' },
          { value: 'mechanical', text: 'mechanical part' }, { value: 'tool', text: 'tool' }, { value: 'consumable', text: 'used up' },
          { value: 'made', text: 'made here' }, { value: 'other', text: 'other' }]} />
        <Field label="At least so many" name="minimum" inputMode="numeric" placeholder="0"
          defaultValue={start?.minimum ? String(start.minimum) : undefined} hint="Beside what jobs need; fewer are to be ordered" />
        <Field label="Date code" name="dateCode" defaultValue={start?.dateCode} mono />
        <Field label="From" name="source" defaultValue={start?.source} placeholder="supplier, donor" />
        <Field label={`Price of one${currency ? `, ${currency}` : ''}`} name="priceCents" inputMode="decimal"
          defaultValue={amountOf(start?.priceCents)} />
      </FieldGrid>
      <datalist id="places-of-parts">{places.data?.map((place) => <option key={place} value={place} />)}</datalist>
      <details open={kind === 'made' || Boolean(start?.backBy || start?.model)}>
        <summary>Made parts, and what must go back</summary>
        <FieldGrid>
          <Field label="For the model" name="model" defaultValue={start?.model} />
          <Field label="Material" name="material" defaultValue={start?.material} />
          <Field label="Why it was made, and by which drawing" name="why" defaultValue={start?.why}
            hint="The drawing itself is added in the list, under Drawings" />
          <Field label="Must go back by" name="backBy" defaultValue={start?.backBy} mono placeholder="2027-06-30" />
          <Field label="Back to" name="backTo" defaultValue={start?.backTo} placeholder="EH-0107, or who lent it" />
        </FieldGrid>
      </details>
      <Field label="Note" name="note" rows={2} defaultValue={start?.note} />
    </RecordForm>
  )
}
