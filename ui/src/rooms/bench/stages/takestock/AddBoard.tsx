import { useAddAssembly } from '../../../../api/assemblies'
import { BoardForm } from './BoardForm'

/** Adds a board to the machine. */
export function AddBoard({ machineId, isFirst, onDone }: { machineId: number; isFirst: boolean;
  onDone: (id?: number) => void }) {
  const add = useAddAssembly(machineId)
  return (
    <BoardForm
      keptAs={`new board of ${String(machineId)}`}
      start={{ title: isFirst ? 'Main board' : '' }}
      error={add.error}
      isPending={add.isPending}
      action="Add the board"
      onSubmit={(fields) => { add.mutate(fields, { onSuccess: ({ id }) => { onDone(id) } }) }}
      onCancel={() => { onDone() }}
    />
  )
}
