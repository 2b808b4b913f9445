import { useQuery } from '@tanstack/react-query'
import { useNavigate } from 'react-router'

import { nextNumberQuery } from '../../api/lots'
import { useCreateMachine } from '../../api/machines'
import { Page, Title } from '../../kit/Page'
import { Skeleton } from '../../kit/Skeleton'
import { MachineForm } from './MachineForm'

/** Enters a machine into the collection and takes it onto the bench. */
export default function NewMachine() {
  const create = useCreateMachine()
  const navigate = useNavigate()
  const next = useQuery(nextNumberQuery(0))
  if (next.isPending) return <Page><Skeleton what="The form" lines={14} /></Page>
  return (
    <Page>
      <Title>Enter a machine</Title>
      <MachineForm
        keptAs="new machine"
        start={{ accession: next.data?.number ?? '', name: '' }}
        error={create.error}
        isPending={create.isPending}
        action="Enter and take onto the bench"
        leave="Cancel"
        onSubmit={(fields) => {
          create.mutate(fields, { onSuccess: (machine) => void navigate(`/bench/${String(machine.id)}/take-stock`) })
        }}
        onCancel={() => void navigate('/collection')}
      />
    </Page>
  )
}
