import { useState } from 'react'

import { useCheckFault } from '../../api/known'
import { today } from '../history/moment'
import { Button } from '../../kit/Button'
import { Field, FieldGrid } from '../../kit/Field'
import { NotSaved } from '../../kit/NotSaved'
import { RecordForm, textOf } from '../../kit/RecordForm'

type Props = { of: string; knownId: number; assemblyId: number; fault: string }

/** Says whether an assembly has what its kind is known for. */
export function CheckFault({ of, knownId, assemblyId, fault }: Props) {
  const check = useCheckFault()
  const [hasIt, setHasIt] = useState<boolean>()
  if (hasIt === undefined) {
    return (
      <>
        {' '}<Button $small aria-label={`It has it: ${fault}, ${of}`} onPress={() => { setHasIt(true) }}>It has it</Button>
        {' '}<Button $small $tone="quiet" aria-label={`It does not: ${fault}, ${of}`}
          onPress={() => { setHasIt(false) }}>It does not</Button>
        <NotSaved error={check.error} />
      </>
    )
  }
  return (
    <RecordForm keptAs={`fault ${fault} of ${String(assemblyId)}`}
      error={check.error} isPending={check.isPending} action={hasIt ? 'Note that it has it'
      : 'Note that it does not have it'}
      onSubmit={(form) => {
        check.mutate({ assemblyId, knownId, fault, hasIt, on: textOf(form, 'on'), note: textOf(form, 'note') },
          { onSuccess: () => { setHasIt(undefined) } })
      }}
      onCancel={() => { setHasIt(undefined) }}>
      <FieldGrid>
        <Field label="Found out on" name="on" defaultValue={today()} mono />
        <Field label="What was seen" name="note" autoFocus />
      </FieldGrid>
    </RecordForm>
  )
}
