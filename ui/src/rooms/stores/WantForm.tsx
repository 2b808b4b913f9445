import { useState } from 'react'

import type { WantFields } from '../../api/wanted'
import { PickMachine } from '../../features/machines/PickMachine'
import { amountOf, readAmounts } from '../../kit/amount'
import { Choice, Field, FieldGrid } from '../../kit/Field'
import { RecordForm, textOf } from '../../kit/RecordForm'

type Props = { keptAs: string; base?: unknown; start?: WantFields & { accession?: string }; action: string
  error: Error | null
  isPending: boolean; currency?: string; onSubmit: (fields: WantFields) => void; onCancel: () => void }

type Kind = NonNullable<WantFields['kind']>
type State = NonNullable<WantFields['state']>

const kinds: { value: Kind; text: string }[] = [{ value: 'other', text: 'other' }, { value: 'part', text: 'part' },
  { value: 'card', text: 'whole card' }, { value: 'machine', text: 'machine' }, { value: 'keyboard', text: 'keyboard' },
  { value: 'lead', text: 'lead' }, { value: 'accessory', text: 'accessory' }, { value: 'media', text: 'media' },
  { value: 'software', text: 'software' }, { value: 'manual', text: 'manual' }]

/** Something that is looked for, and the words by which it is known in offers. */
export function WantForm({ start, currency, onSubmit, ...form }: Props) {
  const accession = start?.accession ?? ''
  const [kind, setKind] = useState<Kind>(start?.kind ?? 'other')
  const [state, setState] = useState<State>(start?.state ?? 'open')
  const [machine, setMachine] = useState(start?.machineId ?? null)
  const [wrong, setWrong] = useState<Record<string, string>>({})
  return (
    <RecordForm {...form} wrong={wrong} onSubmit={(data) => {
      const amounts = readAmounts({ mostCents: textOf(data, 'mostCents') })
      setWrong(amounts.wrong)
      if (Object.keys(amounts.wrong).length > 0) return
      onSubmit({ what: textOf(data, 'what'), kind, state, machineId: machine ?? undefined,
        alerts: textOf(data, 'alerts').split(';').map((one) => one.trim()).filter(Boolean),
        mostCents: amounts.cents.mostCents ?? undefined, since: textOf(data, 'since'), note: textOf(data, 'note') })
    }}>
      <FieldGrid>
        <Field label="What is looked for" name="what" defaultValue={start?.what} isRequired
          placeholder="Service handbook of the Meridian 2" autoFocus />
        <Choice label="Kind" value={kind} onChange={setKind} options={kinds} />
        <Field label="Known in offers by" name="alerts" defaultValue={start?.alerts?.join('; ')}
          placeholder="service handbook; 4410 handbook" hint="Words that stand together, with ; between" />
        <PickMachine label="For the machine" start={accession} onPick={setMachine} isFirst={false} />
        <Field label={`At most${currency ? `, ${currency}` : ''}`} name="mostCents" inputMode="decimal"
          defaultValue={amountOf(start?.mostCents)} />
        <Field label="Since" name="since" mono defaultValue={start?.since} placeholder="today" hint="YYYY-MM-DD" />
        {start && <Choice label="State" value={state} onChange={setState} options={[{ value: 'open', text: 'looked for' },
          { value: 'found', text: 'found' }, { value: 'given up', text: 'given up' }]} />}
      </FieldGrid>
      <Field label="Note" name="note" rows={2} defaultValue={start?.note} />
    </RecordForm>
  )
}
