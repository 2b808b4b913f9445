import { useQuery } from '@tanstack/react-query'

import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { useAccount } from '../../../../api/session'
import { treatmentQuery } from '../../../../api/work'
import { Notice } from '../../../../kit/Notice'
import { Skeleton } from '../../../../kit/Skeleton'
import { Gather } from './Gather'
import { InStores } from './InStores'
import { Jobs } from './Jobs'
import { MachinePolicies } from './MachinePolicies'
import { Modifications } from './Modifications'
import { Wanting } from './Wanting'

/** What is done to the machine: findings that want a job, the jobs and what they wait for, and what was changed. */
export function MakeGood({ machine }: { machine: Machine }) {
  const treatment = useQuery(treatmentQuery(machine.id))
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  if (treatment.error) return <Notice tone="stop" word="Not read.">{messageOf(treatment.error)}</Notice>
  if (!treatment.data) return <Skeleton what="Make good" lines={14} />
  const props = { machine, treatment: treatment.data, mayWrite }
  return (
    <>
      <Wanting {...props} />
      <Gather {...props} />
      <Jobs {...props} />
      <Modifications {...props} />
      <MachinePolicies machineId={machine.id} mayWrite={mayWrite} />
      {mayWrite && <InStores machineId={machine.id} />}
    </>
  )
}
