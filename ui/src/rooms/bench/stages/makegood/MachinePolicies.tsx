import { Link } from 'react-router'

import { Policies } from '../../../../features/policies/Policies'
import { Part } from '../../../../kit/Part'

/** By which school this machine is restored, and what the other would take. */
export function MachinePolicies({ machineId, mayWrite }: { machineId: number; mayWrite: boolean }) {
  return (
    <Part title="Policies" faint="Which jobs follow from what is found" action={<Link to="/collection/policies">Of the
      collection</Link>}>
      <Policies machineId={machineId} mayDecide={mayWrite} />
    </Part>
  )
}
