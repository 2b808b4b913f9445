import { useInfiniteQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { Machine } from '../../../../../api/machines'
import { looseQuery, useMove } from '../../../../../api/moves'
import { today } from '../../../../../features/history/moment'
import { Choice, Field, FieldGrid } from '../../../../../kit/Field'
import { Pick } from '../../../../../kit/Pick'
import { RecordForm, textOf } from '../../../../../kit/RecordForm'
import { type Fit, fits } from '../BoardForm'

/** Puts an assembly that is in store, or was lent, into the machine on the bench. */
export function FitFromStore({ machine, onDone }: { machine: Machine; onDone: (id?: number) => void }) {
  const [search, setSearch] = useState('')
  const [chosen, setChosen] = useState<number | null>(null)
  const [fit, setFit] = useState<Fit>('later')
  const [nothing, setNothing] = useState<Record<string, string>>({})
  const found = useInfiniteQuery(looseQuery(search))
  const loose = found.data?.pages.flatMap((page) => page.assemblies) ?? []
  const assembly = loose.find(({ id }) => id === chosen)
  const move = useMove(chosen ?? 0)

  const submit = (form: FormData) => {
    setNothing(assembly ? {} : { assembly: 'Choose one of those that are in store or lent.' })
    if (!assembly) return
    move.mutate(
      { version: assembly.version, to: 'machine', machineId: machine.id, slot: textOf(form, 'slot'), fit,
        on: textOf(form, 'on') },
      { onSuccess: () => { onDone(assembly.id) } },
    )
  }
  return (
    <RecordForm keptAs={`from store into ${String(machine.id)}`}
      error={move.error} wrong={nothing} isPending={move.isPending}
      action={`Put it into ${machine.accession}`} onSubmit={submit} onCancel={() => { onDone() }}>
      <FieldGrid>
        <Pick
          label="What is in store or lent"
          name="assembly"
          items={loose.map((one) => ({ id: one.id,
            text: [one.title, one.part, one.lentTo ? `lent to ${one.lentTo}` : one.place].filter(Boolean)
              .join(', ') }))}
          search={search}
          onSearch={setSearch}
          onPick={setChosen}
          autoFocus
        />
        <Field label="Slot" name="slot" mono />
        <Choice label="Fitted" value={fit} options={fits} onChange={setFit} />
        <Field label="Day of the move" name="on" defaultValue={today()} mono />
      </FieldGrid>
    </RecordForm>
  )
}
