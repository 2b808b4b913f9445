import { useState } from 'react'

import { useTakePack } from '../../api/library'
import { messageOf } from '../../api/problem'
import { keepUnder } from '../../data/drafts'
import { useKept } from '../../data/useDrafts'
import { Button, Buttons } from '../../kit/Button'
import { Field, FormPanel, Tick } from '../../kit/Field'
import { Scroll, StackedTable } from '../../kit/ListTable'
import { Mark } from '../../kit/Mark'
import { Notice } from '../../kit/Notice'

/** Takes over a reference pack of types as CSV: first it says what would be done, line by line. */
export function PackForm({ onDone }: { onDone: () => void }) {
  const [text, change, forget] = useKept('reference pack', '')
  const setText = (next: string) => { change(() => next) }
  const [over, setOver] = useState(false)
  const look = useTakePack()
  const take = useTakePack()
  const rows = take.data?.rows ?? look.data?.rows ?? []
  const wrong = rows.filter(({ state }) => state === 'wrong').length
  const count = (state: string) => rows.filter((row) => row.state === state).length
  return (
    <FormPanel onSubmit={(event) => { event.preventDefault(); look.mutate({ text, dry: true, over: false }) }}>
      <Field
        label="Reference pack, CSV"
        value={text}
        onChange={(next) => { setText(next); look.reset(); take.reset() }}
        rows={6}
        mono
        autoFocus
        placeholder={'number,class,function,package,currents,substitutes\nHX9050,own,"processor, 16 bits",DIP-48,+5 200/300,HX9040'}
        hint="The columns number, class and function are needed. Nothing is taken over before you have seen what would be done."
      />
      <Buttons>
        <input type="file" accept=".csv,text/csv,text/plain" aria-label="File of a reference pack"
          onChange={(event) => { void event.target.files?.[0]?.text().then(setText) }} />
        <Button type="submit" $tone="main" isPending={look.isPending} isDisabled={text.trim() === ''}>
          See what it would do
        </Button>
        {look.data && wrong === 0 && !take.data?.taken && <Button isPending={take.isPending}
          onPress={() => {
            take.mutate({ text, dry: false, over }, { onSuccess: () => { keepUnder('reference pack', undefined) } })
          }}>Take it over</Button>}
        <Button onPress={() => { forget(); onDone() }}>{take.data?.taken ? 'Close' : 'Cancel'}</Button>
      </Buttons>
      {count('changed') > 0 && !take.data && <Tick isOn={over} onChange={setOver}
        label={`Also change the ${String(count('changed'))} that say something else than ours`} />}
      {(look.error ?? take.error) && <Notice tone="stop" word="Not taken over.">
        {messageOf(look.error ?? take.error)}
      </Notice>}
      {rows.length > 0 && (
        <p role="status">
          {take.data?.taken ? `Taken over; ${String(take.data.recognised)} parts on all sheets are known by it now: `
            : wrong > 0 ? `${String(wrong)} lines are wrong, so nothing would be taken over: ` : 'It would do this: '}
          {count('new')} new, {count('changed')} {take.data && over ? 'changed' : 'beside ours, which stay'}, {count('same')} the same.
        </p>
      )}
      {rows.length > 0 && (
        <Scroll>
          <StackedTable>
            <thead><tr><th>Line</th><th>Number</th><th>State</th><th>Why, or what differs: here, and in the pack</th></tr></thead>
            <tbody>
              {rows.filter(({ state }) => state !== 'same').slice(0, 200).map((row) => (
                <tr key={row.line}><td>{row.line}</td><td>{row.number}</td>
                  <td>{row.state === 'wrong' && <Mark kind="problem" />} {row.state}</td><td>{row.why}{row.differences.map(({ field, here, pack }) => <div key={field}>{field}: {here || 'nothing'};{' '}
                    {pack || 'nothing'}</div>)}</td></tr>
              ))}
            </tbody>
          </StackedTable>
        </Scroll>
      )}
    </FormPanel>
  )
}
