import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { type OfferFields, offerReadingQuery } from '../../api/wanted'
import { amountOf, readAmounts } from '../../kit/amount'
import { Choice, Field, FieldGrid } from '../../kit/Field'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { useSettled } from '../../kit/useSettled'
import { OfferWeighed } from './OfferWeighed'

type Props = { keptAs: string; base?: unknown; start?: OfferFields; action: string; error: Error | null
  isPending: boolean; currency?: string; onSubmit: (fields: OfferFields) => void; onCancel: () => void }

type State = NonNullable<OfferFields['state']>

/** What is offered, word for word; what it amounts to is told while it is typed. */
export function OfferForm({ start, currency, onSubmit, ...form }: Props) {
  const [title, setTitle] = useState(start?.title ?? '')
  const [text, setText] = useState(start?.text ?? '')
  const [state, setState] = useState<State>(start?.state ?? 'open')
  const [wrong, setWrong] = useState<Record<string, string>>({})
  const read = useQuery(offerReadingQuery({ title: useSettled(title, 300), text: useSettled(text, 300) }))
  return (
    <RecordForm {...form} wrong={wrong} onSubmit={(data) => {
      const amounts = readAmounts({ askingCents: textOf(data, 'askingCents'), limitCents: textOf(data, 'limitCents') })
      setWrong(amounts.wrong)
      if (Object.keys(amounts.wrong).length > 0) return
      onSubmit({ title, text, state, source: textOf(data, 'source'), seenOn: textOf(data, 'seenOn'),
        endsOn: textOf(data, 'endsOn'), note: textOf(data, 'note'), askingCents: amounts.cents.askingCents ?? undefined,
        limitCents: amounts.cents.limitCents ?? undefined })
    }}>
      <Field label="What is offered" name="title" value={title} onChange={setTitle} isRequired autoFocus
        placeholder="Box of Meridian cards" />
      <Field label="The offer, word for word" name="text" value={text} onChange={setText} rows={4}
        hint="It may be gone tomorrow: what stands here is kept" />
      {!start && read.data && <div role="status"><OfferWeighed weighed={read.data} currency={currency} /></div>}
      <FieldGrid>
        <Field label="Who offers it, and where" name="source" defaultValue={start?.source} />
        <Field label={`Asked${currency ? `, ${currency}` : ''}`} name="askingCents" inputMode="decimal"
          defaultValue={amountOf(start?.askingCents)} />
        <Field label={`Your limit${currency ? `, ${currency}` : ''}`} name="limitCents" inputMode="decimal"
          defaultValue={amountOf(start?.limitCents)} hint="Carriage included" />
        <Field label="Ends on" name="endsOn" mono defaultValue={start?.endsOn} hint="YYYY-MM-DD; the start page tells it" />
        <Field label="Seen on" name="seenOn" mono defaultValue={start?.seenOn} placeholder="today" />
        {start && <Choice label="State" value={state} onChange={setState} options={[{ value: 'open', text: 'open' },
          { value: 'gone', text: 'gone to somebody else' }, { value: 'declined', text: 'declined' }]} />}
      </FieldGrid>
      <Field label="Note" name="note" rows={2} defaultValue={start?.note} />
    </RecordForm>
  )
}
