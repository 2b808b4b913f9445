import { useState } from 'react'

import { useRenamePlace } from '../../api/dossier'
import { Button } from '../../kit/Button'
import { Field } from '../../kit/Field'
import { RecordForm, textOf } from '../../kit/RecordForm'

/** The name of a place, and for those who keep the record a way to give it another. */
export function RenamePlace({ path, name, mayRename }: { path: string; name: string; mayRename: boolean }) {
  const [isOpen, setIsOpen] = useState(false)
  const rename = useRenamePlace()
  const close = () => {
    setIsOpen(false)
    rename.reset()
  }
  if (!mayRename) return name
  if (!isOpen) {
    return (
      <>
        {name}{' '}
        <Button $small $tone="quiet" aria-label={`Rename ${path}`} onPress={() => { setIsOpen(true) }}>Rename</Button>
      </>
    )
  }
  return (
    <RecordForm keptAs={`place ${path}`}
      error={rename.error} isPending={rename.isPending} action="Rename" onCancel={close}
      onSubmit={(form) => { rename.mutate({ from: path, to: textOf(form, 'to') }, { onSuccess: close }) }}>
      <Field label={`What ${path} is called from now on`} name="to" defaultValue={path} autoFocus />
    </RecordForm>
  )
}
