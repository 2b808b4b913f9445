import { useState } from 'react'
import styled from 'styled-components'

import type { Order, OrderFields } from '../../api/stores'
import { keptUnder } from '../../data/drafts'
import { amountOf, readAmounts } from '../../kit/amount'
import { Button, Buttons } from '../../kit/Button'
import { Field, FieldGrid } from '../../kit/Field'
import { type KeptForm, RecordForm, textOf } from '../../kit/RecordForm'
import { space } from '../../theme'

type Line = OrderFields['lines'][number]
type Props = { keptAs: string; base?: unknown; start?: Order; lines: Line[]; action: string; error: Error | null
  isPending: boolean; currency?: string; onSubmit: (fields: OrderFields) => void; onCancel: () => void }

/** What was ordered, line by line. */
export function OrderForm({ start, lines, currency, onSubmit, ...form }: Props) {
  const [rows, setRows] = useState(() => Math.max(1, lines.length, linesTyped(form.keptAs)))
  const [wrong, setWrong] = useState<Record<string, string>>({})
  return (
    <RecordForm {...form} wrong={wrong} onSubmit={(data) => {
      const given = Array.from({ length: rows }, (_, i) => ({ n: lines[i]?.n ?? 0, what: textOf(data,
        `what-${String(i)}`),
        count: textOf(data, `count-${String(i)}`) || '1', price: textOf(data, `price-${String(i)}`),
          i })).filter(({ what }) => what)
      const amounts = readAmounts(Object.fromEntries(given.map(({ i, price }) => [`price-${String(i)}`, price])))
      const odd = given.filter(({ count }) => !/^[1-9]\d{0,5}$/.test(count))
      const found = { ...amounts.wrong, ...Object.fromEntries(odd.map(({ i }) => [`count-${String(i)}`, 'Write a whole number of pieces.'])) }
      if (given.length === 0) found['what-0'] = 'Say what was ordered.'
      setWrong(found)
      if (Object.keys(found).length > 0) return
      onSubmit({ supplier: textOf(data, 'supplier'), number: textOf(data, 'number'), orderedOn: textOf(data, 'orderedOn'),
        dueOn: textOf(data, 'dueOn'), note: textOf(data, 'note'), lines: given.map(({ n, what, count, i }) => ({ n, what,
          count: Number(count), priceCents: amounts.cents[`price-${String(i)}`] ?? undefined })) })
    }}>
      <FieldGrid>
        <Field label="Ordered of" name="supplier" defaultValue={start?.supplier} isRequired placeholder="Reed & Rush Parts" />
        <Field label="Their number" name="number" defaultValue={start?.number} mono />
        <Field label="Ordered on" name="orderedOn" defaultValue={start?.orderedOn} mono placeholder="today" />
        <Field label="Should be here by" name="dueOn" defaultValue={start?.dueOn} mono placeholder="2026-12-10" />
      </FieldGrid>
      {Array.from({ length: rows }, (_, i) => (
        <LineRow key={i} role="group" aria-label={`Line ${String(i + 1)}`}>
          <Field label="Count" name={`count-${String(i)}`} inputMode="numeric" defaultValue={lines[i] ? String(lines[i].count) : undefined}
            placeholder="1" />
          <Field label="What" name={`what-${String(i)}`} mono defaultValue={lines[i]?.what} placeholder="NiMH 3.6V 60mAh" />
          <Field label={`One${currency ? `, ${currency}` : ''}`} name={`price-${String(i)}`} inputMode="decimal"
            defaultValue={amountOf(lines[i]?.priceCents)} />
        </LineRow>
      ))}
      <Buttons><Button $small onPress={() => { setRows(rows + 1) }}>Add a line</Button></Buttons>
      <Field label="Note" name="note" rows={2} defaultValue={start?.note} />
    </RecordForm>
  )
}

/** How many lines what is kept of the form has. */
function linesTyped(keptAs: string): number {
  const fields = keptUnder<KeptForm>(keptAs)?.fields ?? {}
  return Math.max(0, ...Object.keys(fields).map((name) => Number(/^what-(\d+)$/.exec(name)?.[1] ?? -1) + 1))
}

const LineRow = styled.div`
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr) 120px;
  gap: ${space(1)};
  align-items: start;
  @media (max-width: 600px) { grid-template-columns: 72px minmax(0, 1fr); }
`
