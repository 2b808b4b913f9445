import { type AssemblyFields, type FittedAssembly, useChangeAssembly } from '../../../../api/assemblies'
import { useVoid } from '../../../../api/moves'
import { messageOf } from '../../../../api/problem'
import { Button } from '../../../../kit/Button'
import { EditRecord } from '../../../../kit/EditRecord'
import { Notice } from '../../../../kit/Notice'
import { BoardForm } from './BoardForm'

const names: Partial<Record<keyof AssemblyFields, string>> = {
  title: 'name', kind: 'kind', part: 'part number', rev: 'revision', serial: 'serial number', slot: 'slot',
    fit: 'fitted', purpose: 'memory is for',
}

/** Edits what is said of a board. */
export function BoardDetails({ assembly, onDone }: { assembly: FittedAssembly; onDone: () => void }) {
  const change = useChangeAssembly(assembly.id)
  const voiding = useVoid(assembly.id)
  return (
    <EditRecord keptAs={`board ${String(assembly.id)}`}
      record={assembly} change={change} newerIn={({ assembly: newer }) => newer && { ...assembly, ...newer }}
      names={names} onDone={onDone}>
      {(form) => (
        <BoardForm start={assembly} action="Save" {...form}>
          <Button $tone="quiet" isPending={voiding.isPending}
            onPress={() => { voiding.mutate(assembly.version, { onSuccess: onDone }) }}>
            Entered by mistake: strike it out
          </Button>
          {voiding.error && <Notice tone="stop" word="Not deleted.">{messageOf(voiding.error)}</Notice>}
        </BoardForm>
      )}
    </EditRecord>
  )
}
