import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { placesQuery } from '../../api/machines'
import { type Order, useBookArrival } from '../../api/stores'
import { Field, FieldGrid } from '../../kit/Field'
import { RecordForm, textOf } from '../../kit/RecordForm'

type Props = { order: Order; line: Order['lines'][number]; onDone: () => void }

/** What came of a line: how many are good, how many are dead, and where they lie. */
export function ArrivalForm({ order, line, onDone }: Props) {
  const places = useQuery(placesQuery)
  const book = useBookArrival(order.id)
  const [wrong, setWrong] = useState<Record<string, string>>({})
  return (
    <RecordForm keptAs={`arrival of ${String(order.id)}, ${String(line.n)}`} error={book.error} wrong={wrong}
      isPending={book.isPending} action="Save" onCancel={onDone} onSubmit={(data) => {
        const figures = { count: textOf(data, 'count'), dead: textOf(data, 'dead') || '0' }
        const odd = Object.entries(figures).filter(([, text]) => !/^\d{1,6}$/.test(text))
        setWrong(Object.fromEntries(odd.map(([name]) => [name, 'Write a whole number of pieces.'])))
        if (odd.length > 0) return
        book.mutate({ version: order.version, line: line.n ?? 0, count: Number(figures.count),
          dead: Number(figures.dead),
          on: textOf(data, 'on'), place: textOf(data, 'place') }, { onSuccess: onDone })
      }}>
      <FieldGrid>
        <Field label={`Good ones of ${line.what}`} name="count" inputMode="numeric" defaultValue={String(line.toCome)} autoFocus />
        <Field label="Dead on arrival" name="dead" inputMode="numeric" placeholder="0" hint="They go back, and stay to come" />
        <Field label="Where they lie now" name="place" list="places-of-arrival" placeholder="Store, box 3" />
        <Field label="On" name="on" mono placeholder="today" />
      </FieldGrid>
      <datalist id="places-of-arrival">{places.data?.map((place) => <option key={place} value={place} />)}</datalist>
    </RecordForm>
  )
}
