import { useState } from 'react'

import type { LotFields } from '../../api/lots'
import { amountOf, centsOf, readAmounts } from '../../kit/amount'
import { Button } from '../../kit/Button'
import { Choice, Field, FieldGrid } from '../../kit/Field'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { PickParty } from '../library/people/PickParty'

const methods: { value: LotFields['method']; text: string }[] = [
  { value: 'purchase', text: 'purchase' }, { value: 'auction', text: 'auction' }, { value: 'gift', text: 'gift' },
    { value: 'loan in', text: 'loan in' },
  { value: 'found', text: 'found' }, { value: 'transfer', text: 'transfer' }, { value: 'exchange', text: 'exchange' },
]
const spreads: { value: NonNullable<LotFields['spread']>; text: string }[] = [
  { value: 'estimate', text: 'by estimate' }, { value: 'equal', text: 'in equal shares' },
    { value: 'hand', text: 'by hand' },
]

type Props = {
  start?: Partial<LotFields> & { party?: string }
  keptAs: string
  base?: unknown
  error: Error | null
  isPending: boolean
  action: string
  leave?: string
  onSubmit: (fields: LotFields) => void
  onCancel: () => void
}

/** What is written about an arrival: how things came, from whom, for how much, in which state. */
export function LotForm({ start, onSubmit, ...form }: Props) {
  const [method, setMethod] = useState<LotFields['method']>(start?.method ?? 'purchase')
  const [spread, setSpread] = useState(start?.spread ?? 'estimate')
  const [party, setParty] = useState<number | null>(start?.partyId ?? null)
  const [extras, setExtras] = useState(Math.max(1, start?.costs?.length ?? 0))
  const [wrong, setWrong] = useState<Record<string, string>>({})
  const rows = Array.from({ length: extras }, (_, i) => i)
  const submit = (data: FormData) => {
    const text = (name: string) => textOf(data, name)
    const amounts = readAmounts(Object.fromEntries(['priceCents', ...rows.map((i) => `cost${String(i)}`)].map((name) =>
      [name, text(name)])))
    setWrong(amounts.wrong)
    if (Object.keys(amounts.wrong).length > 0) return
    onSubmit({
      title: text('title'), method, arrived: text('arrived'), partyId: party,
        priceCents: amounts.cents.priceCents ?? null, currency: text('currency'), spread,
      costs: rows.flatMap((i) => {
        const cents = centsOf(text(`cost${String(i)}`))
        return cents ? [{ what: text(`what${String(i)}`), cents }] : []
      }),
      condition: text('condition'), powered: text('powered'), cameWith: text('cameWith'), note: text('note'),
    })
  }
  return (
    <RecordForm {...form} wrong={wrong} onSubmit={submit}>
      <FieldGrid>
        <Field label="What arrived" name="title" defaultValue={start?.title} placeholder="Clear-out of the seed loft"
          isRequired autoFocus />
        <Choice label="How" value={method} options={methods} onChange={setMethod} />
        <PickParty label="From" name="partyId" start={{ id: start?.partyId ?? null, name: start?.party ?? '' }}
          onPick={setParty} />
        <Field label="When" name="arrived" defaultValue={start?.arrived} placeholder="2026-03-14"
          hint="Or 2026, 2026~ (about), 198X" mono />
      </FieldGrid>
      <FieldGrid>
        <Field label="Price, without extra costs" name="priceCents" defaultValue={amountOf(start?.priceCents)}
          inputMode="decimal" placeholder="371.00" mono />
        <Field label="Currency" name="currency" defaultValue={start?.currency} placeholder="EUR" maxLength={3}
          hint="Empty for the collection's own" mono />
        <Choice label="Spread over the things" value={spread} options={spreads} onChange={setSpread} />
      </FieldGrid>
      {rows.map((i) => (
        <FieldGrid key={i}>
          <Field label="Extra cost for" name={`what${String(i)}`}
            defaultValue={start?.costs?.[i]?.what ?? (i === 0 ? 'carriage' : '')} />
          <Field label="Amount" name={`cost${String(i)}`} defaultValue={amountOf(start?.costs?.[i]?.cents)}
            inputMode="decimal" placeholder="48.50" mono />
          {i === extras - 1 ? <div><Button $tone="quiet" onPress={() => { setExtras(extras + 1) }}>
            Another extra cost
          </Button></div> : <span />}
        </FieldGrid>
      ))}
      <FieldGrid>
        <Field label="Condition as received" name="condition" defaultValue={start?.condition} rows={2} />
        <Field label="When it last ran, and whether anybody powered it since" name="powered"
          defaultValue={start?.powered} rows={2} />
        <Field label="What else came" name="cameWith" defaultValue={start?.cameWith} rows={2} />
        <Field label="Note" name="note" defaultValue={start?.note} rows={2} />
      </FieldGrid>
    </RecordForm>
  )
}
