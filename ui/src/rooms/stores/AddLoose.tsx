import { useQuery } from '@tanstack/react-query'
import { useNavigate } from 'react-router'

import { placesQuery } from '../../api/machines'
import { useAddLoose } from '../../api/moves'
import { Field } from '../../kit/Field'
import { textOf } from '../../kit/RecordForm'
import { BoardForm } from '../bench/stages/takestock/BoardForm'

/** Enters a unit that is in no machine, and goes to its sheet. */
export function AddLoose({ onDone }: { onDone: () => void }) {
  const places = useQuery(placesQuery)
  const add = useAddLoose()
  const navigate = useNavigate()
  return (
    <BoardForm
      keptAs="new thing in store"
      start={{ title: '', kind: 'card' }}
      error={add.error}
      isPending={add.isPending}
      action="Save"
      onSubmit={(fields, form) => {
        add.mutate({ ...fields, place: textOf(form, 'place') }, { onSuccess: ({ id }) =>
          void navigate(`/stores/${String(id)}`) })
      }}
      onCancel={onDone}
    >
      <Field label="Where it is" name="place" list="places-of-loose" isRequired />
      <datalist id="places-of-loose">{places.data?.map((place) => <option key={place} value={place} />)}</datalist>
    </BoardForm>
  )
}
