import { useState } from 'react'

import { type AssemblyFields, type FittedAssembly, useChangeAssembly } from '../../../../api/assemblies'
import { useStrike } from '../../../../api/moves'
import { messageOf, ProblemError } from '../../../../api/problem'
import { Button } from '../../../../kit/Button'
import { ChangedMeanwhile, Differences } from '../../../../kit/ChangedMeanwhile'
import { Notice } from '../../../../kit/Notice'
import { BoardForm } from './BoardForm'

const names: Partial<Record<keyof AssemblyFields, string>> = {
  title: 'name', kind: 'kind', part: 'part number', rev: 'revision', serial: 'serial number', slot: 'slot', fit: 'fitted', purpose: 'memory is for',
}

/** Edits what is said of a board. */
export function BoardDetails({ assembly, onDone }: { assembly: FittedAssembly; onDone: () => void }) {
  const [base, setBase] = useState(assembly)
  const change = useChangeAssembly(assembly.id)
  const strike = useStrike(assembly.id)
  const newer = change.error instanceof ProblemError ? change.error.problem?.newer?.assembly : undefined
  return (
    <>
      {newer && (
        <ChangedMeanwhile onGoOn={() => { setBase({ ...assembly, ...newer }); change.reset() }} onDrop={onDone}>
          <Differences<AssemblyFields> names={names} mine={base} theirs={newer} />
        </ChangedMeanwhile>
      )}
      <BoardForm
        start={assembly}
        error={newer ? null : change.error}
        isPending={change.isPending}
        action="Keep the details"
        onSubmit={(fields) => { change.mutate({ ...fields, version: base.version }, { onSuccess: onDone }) }}
        onCancel={onDone}
      >
        <Button $tone="quiet" isPending={strike.isPending} onPress={() => { strike.mutate(base.version, { onSuccess: onDone }) }}>
          Entered by mistake: strike it out
        </Button>
        {strike.error && <Notice tone="stop" word="Not struck out.">{messageOf(strike.error)}</Notice>}
      </BoardForm>
    </>
  )
}
