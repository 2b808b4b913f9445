import { useInfiniteQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import { risksQuery } from '../../../../api/judge'
import { messageOf } from '../../../../api/problem'
import { Notice } from '../../../../kit/Notice'
import { Part } from '../../../../kit/Part'
import { RiskList } from './RiskList'

/** What ages in the machine, what to look at first on top. */
export function MachineRisks({ machineId }: { machineId: number }) {
  const risks = useInfiniteQuery(risksQuery(machineId))
  const first = risks.data?.pages[0]
  return (
    <Part title="What ages" faint={first && `${String(first.due)} of ${String(first.total)} overdue`}
      action={<Link to="/diary/open-first">What to open first</Link>}>
      {risks.error && <Notice tone="stop" word="Not ranked.">{messageOf(risks.error)}</Notice>}
      {first?.total === 0 && <p>Nothing on the sheets is known to age.</p>}
      <RiskList risks={risks.data?.pages.flatMap((page) => page.risks) ?? []} />
    </Part>
  )
}
