import { useState } from 'react'

import { type AssemblyFields, type FittedAssembly, useChangeAssembly } from '../../../../api/assemblies'
import { ProblemError } from '../../../../api/problem'
import { ChangedMeanwhile, Differences } from '../../../../kit/ChangedMeanwhile'
import { BoardForm } from './BoardForm'

const names: Partial<Record<keyof AssemblyFields, string>> = {
  title: 'name', part: 'part number', rev: 'revision', serial: 'serial number', slot: 'slot', fit: 'fitted', purpose: 'memory is for',
}

/** Edits what is said of a board. */
export function BoardDetails({ machineId, assembly, onDone }: { machineId: number; assembly: FittedAssembly; onDone: () => void }) {
  const [base, setBase] = useState(assembly)
  const change = useChangeAssembly(machineId, assembly.id)
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
      />
    </>
  )
}
