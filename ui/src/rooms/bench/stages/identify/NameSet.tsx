import { useState } from 'react'

import { type RomSocket, useNameRomSet } from '../../../../api/roms'
import { Button } from '../../../../kit/Button'
import { Field } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

/** Names all that was read of a board as a set, for boards with more than one chip. */
export function NameSet({ sockets }: { sockets: RomSocket[] }) {
  const [naming, setNaming] = useState<number>()
  const name = useNameRomSet()
  const boards = new Map<number, RomSocket[]>()
  for (const socket of sockets) boards.set(socket.assemblyId, [...(boards.get(socket.assemblyId) ?? []), socket])
  return (
    <>
      {[...boards].filter(([, own]) => own.length > 1 && own.every(({ chip }) => chip.sha256)).map(([id, own]) => (
        naming === id ? (
          <RecordForm keptAs={`set of ${String(id)}`}
            key={id} error={name.error} isPending={name.isPending} action="Name the set"
            onSubmit={(form) => { name.mutate({ assemblyId: id, name: textOf(form, 'name') },
              { onSuccess: () => { setNaming(undefined) } }) }} onCancel={() => { setNaming(undefined) }}>
            <Field label={`What the ${String(own.length)} chips of ${own[0]?.assembly ?? ''} are together`} name="name"
              isRequired autoFocus placeholder="Harbour BASIC 1.1" />
          </RecordForm>
        ) : <div key={id}><Button $small onPress={() => { setNaming(id) }}>Name the chips of {own[0]?.assembly} as a
          set</Button></div>
      ))}
    </>
  )
}
