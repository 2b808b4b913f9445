import { useNavigate } from 'react-router'

import { useCreateMachine } from '../../api/machines'
import { Page, Title } from '../../kit/Page'
import { MachineForm } from './MachineForm'

/** Enters a machine into the collection and takes it onto the bench. */
export function NewMachine() {
  const create = useCreateMachine()
  const navigate = useNavigate()
  return (
    <Page>
      <Title>Enter a machine</Title>
      <MachineForm
        error={create.error}
        isPending={create.isPending}
        action="Enter and take onto the bench"
        leave="Back to the shelves"
        onSubmit={(fields) => {
          create.mutate(fields, { onSuccess: (machine) => void navigate(`/bench/${String(machine.id)}/take-stock`) })
        }}
        onCancel={() => void navigate('/shelves')}
      />
    </Page>
  )
}
