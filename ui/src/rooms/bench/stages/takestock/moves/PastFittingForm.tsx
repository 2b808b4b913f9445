import { useState } from 'react'

import type { FittedAssembly } from '../../../../../api/assemblies'
import { useTellPastFitting } from '../../../../../api/moves'
import { Button } from '../../../../../kit/Button'
import { Field, FieldGrid } from '../../../../../kit/Field'
import { RecordForm, textOf } from '../../../../../kit/RecordForm'
import { PickMachine } from '../../../../../features/machines/PickMachine'

/** Notes in which machine an assembly was before it came where it is. */
export function PastFittingForm({ assembly }: { assembly: FittedAssembly }) {
  const tell = useTellPastFitting(assembly.id)
  const [asking, setAsking] = useState(false)
  const [machineId, setMachineId] = useState<number | null>(null)
  const done = () => {
    setAsking(false)
    tell.reset()
  }
  if (!asking) return <div><Button $small onPress={() => { setAsking(true) }}>It was in a machine before</Button></div>
  return (
    <RecordForm
      keptAs={`earlier fitting of ${String(assembly.id)}`}
      error={tell.error}
      isPending={tell.isPending}
      action="Save"
      onSubmit={(form) => {
        tell.mutate({ version: assembly.version, machineId: machineId ?? 0, slot: textOf(form, 'slot'),
          from: textOf(form, 'from'), until: textOf(form, 'until'), note: textOf(form, 'note') }, { onSuccess: done })
      }}
      onCancel={done}
    >
      <FieldGrid>
        <PickMachine onPick={setMachineId} />
        <Field label="Slot" name="slot" mono />
        <Field label="From" name="from" placeholder="1988" mono />
        <Field label="Until" name="until" placeholder="2010" isRequired mono />
        <Field label="Note" name="note" />
      </FieldGrid>
    </RecordForm>
  )
}
