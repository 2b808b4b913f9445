import { useNavigate } from 'react-router'

import { useReceiveLot } from '../../api/lots'
import { Page, Title } from '../../kit/Page'
import { LotForm } from './LotForm'

/** Receives a lot; its things are added on its own page. */
export default function NewLot() {
  const receive = useReceiveLot()
  const navigate = useNavigate()
  return (
    <Page>
      <Title>Receive a lot</Title>
      <LotForm
        keptAs="new lot"
        error={receive.error}
        isPending={receive.isPending}
        action="Receive it, and add its things"
        leave="Cancel"
        onSubmit={(fields) => { receive.mutate({ ...fields, things: [] }, { onSuccess: ({ id }) =>
          void navigate(`/collection/arrivals/${String(id)}`) }) }}
        onCancel={() => void navigate('/collection/arrivals')}
      />
    </Page>
  )
}
