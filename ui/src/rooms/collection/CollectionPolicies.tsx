import { Link } from 'react-router'

import { useAccount } from '../../api/session'
import { Policies } from '../../features/policies/Policies'
import { Faint, Page, Title } from '../../kit/Page'

/** By which school the collection restores, where a machine does not go its own way. */
export default function CollectionPolicies() {
  const mayDecide = useAccount()?.mayKeepTheRecord ?? false
  return (
    <Page>
      <Title><Link to="/collection">Collection</Link> / Policies</Title>
      <p><Faint>There is no right way for all machines. What is decided here is proposed at each of them, in Make good, and a
        machine may go its own way with a reason.</Faint></p>
      <Policies machineId={0} mayDecide={mayDecide} />
    </Page>
  )
}
