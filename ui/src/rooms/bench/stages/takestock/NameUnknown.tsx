import { useNameType } from '../../../../api/library'
import { TypeForm } from '../../../library/TypeForm'

/** Names the type of an unknown line; it is recognised on every sheet at once. */
export function NameUnknown({ number, onDone }: { number: string; onDone: () => void }) {
  const name = useNameType()
  return (
    <TypeForm
      keptAs={`type of unknown ${number}`}
      start={{ number }}
      error={name.error}
      isPending={name.isPending}
      action="Name it on every sheet"
      onSubmit={(fields) => { name.mutate(fields, { onSuccess: onDone }) }}
      onCancel={onDone}
    />
  )
}
