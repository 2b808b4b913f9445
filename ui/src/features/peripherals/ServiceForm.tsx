import { useState } from 'react'

import { useServe } from '../../api/peripherals'
import { Field, FieldGrid } from '../../kit/Field'
import { Pick, type Pickable } from '../../kit/Pick'
import { RecordForm, textOf } from '../../kit/RecordForm'

type Props = {
  keptAs: string
  /** What is picked: the peripheral, or the machine. */
  label: string
  missing: string
  items: Pickable[]
  search: string
  onSearch: (words: string) => void
  /** Both ends of the service, once one is picked. */
  ends: (picked: number) => { assemblyId: number; machineId: number }
  onDone: () => void
}

/** Says that a peripheral serves a machine, from either end. */
export function ServiceForm({ keptAs, label, missing, items, search, onSearch, ends, onDone }: Props) {
  const serve = useServe()
  const [picked, setPicked] = useState<number | null>(null)
  const [wrong, setWrong] = useState<Record<string, string>>({})
  return (
    <RecordForm keptAs={keptAs}
      error={serve.error} wrong={wrong} isPending={serve.isPending} action="Save" onCancel={onDone}
      onSubmit={(form) => {
        setWrong(picked ? {} : { machineId: missing })
        if (picked) serve.mutate({ ...ends(picked), as: textOf(form, 'as'), without: textOf(form, 'without') },
          { onSuccess: onDone })
      }}>
      <FieldGrid>
        <Pick label={label} name="machineId" search={search} onSearch={onSearch} onPick={setPicked} autoFocus items={items} />
        <Field label="As" name="as" isRequired placeholder="keyboard" />
        <Field label="What it does not do without one" name="without" placeholder="it waits for a key at the start" />
      </FieldGrid>
    </RecordForm>
  )
}
