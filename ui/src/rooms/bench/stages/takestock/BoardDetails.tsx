import { useState } from 'react'

import { type FittedAssembly, useChangeAssembly } from '../../../../api/assemblies'
import { ProblemError } from '../../../../api/problem'
import { Button } from '../../../../kit/Button'
import { Notice } from '../../../../kit/Notice'
import { BoardForm } from './BoardForm'

/** Edits what is said of a board. */
export function BoardDetails({ machineId, assembly, onDone }: { machineId: number; assembly: FittedAssembly; onDone: () => void }) {
  const [version, setVersion] = useState(assembly.version)
  const change = useChangeAssembly(machineId, assembly.id)
  const newer = change.error instanceof ProblemError ? change.error.problem?.newer?.assembly : undefined
  return (
    <>
      {newer && (
        <Notice tone="attention" word="Changed meanwhile.">
          Somebody else changed these details; nothing was overwritten. They now read: {[newer.title, newer.part, newer.rev, newer.serial, newer.slot, newer.fit].filter(Boolean).join(' · ')}.{' '}
          <Button onPress={() => { setVersion(newer.version); change.reset() }}>Go on with mine over theirs</Button>
        </Notice>
      )}
      <BoardForm
        start={assembly}
        error={newer ? null : change.error}
        isPending={change.isPending}
        action="Keep the details"
        onSubmit={(fields) => { change.mutate({ ...fields, version }, { onSuccess: onDone }) }}
        onCancel={onDone}
      />
    </>
  )
}
