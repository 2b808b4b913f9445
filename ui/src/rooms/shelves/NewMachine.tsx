import { useNavigate } from 'react-router'

import { useCreateMachine } from '../../api/machines'
import { Button } from '../../kit/Button'
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
        onSubmit={(fields) => {
          create.mutate(fields, { onSuccess: (machine) => void navigate(`/bench/${String(machine.id)}/take-stock`) })
        }}
      >
        <Button $tone="main" type="submit" isPending={create.isPending}>Enter and take onto the bench</Button>
        <Button onPress={() => void navigate('/shelves')}>Back to the shelves</Button>
      </MachineForm>
    </Page>
  )
}
