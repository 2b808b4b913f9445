import { useQuery } from '@tanstack/react-query'

import { powerQuery } from '../../../../api/power'
import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { useAccount } from '../../../../api/session'
import { Notice } from '../../../../kit/Notice'
import { Skeleton } from '../../../../kit/Skeleton'
import { Applied } from './Applied'
import { CellsAndFans } from './CellsAndFans'
import { ConsolePart } from './ConsolePart'
import { Gate } from './Gate'
import { Ladder } from './Ladder'
import { Rails } from './Rails'
import { Supplies } from './Supplies'

/** First power: what is missing before, what feeds the machine, the ladder, and each time that power was applied. */
export function PowerUp({ machine }: { machine: Machine }) {
  const power = useQuery(powerQuery(machine.id))
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  if (power.error) return <Notice tone="stop" word="Not read.">{messageOf(power.error)}</Notice>
  if (!power.data) return <Skeleton what="Power up" lines={14} />
  const props = { machine, power: power.data, mayWrite }
  return (
    <>
      <Gate {...props} />
      <Ladder {...props} />
      <ConsolePart machine={machine} mayWrite={mayWrite} />
      <Supplies {...props} />
      <Rails {...props} />
      <CellsAndFans {...props} />
      <Applied {...props} />
    </>
  )
}

export type PowerProps = Parameters<typeof Gate>[0]
