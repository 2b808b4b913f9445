import { useQuery } from '@tanstack/react-query'

import type { Machine } from '../../../../api/machines'
import { conditionQuery } from '../../../../api/judge'
import { messageOf } from '../../../../api/problem'
import { useAccount } from '../../../../api/session'
import { Notice } from '../../../../kit/Notice'
import { MachineUpkeep } from '../../../../features/upkeep/MachineUpkeep'
import { Adjusters } from './Adjusters'
import { Findings } from './Findings'
import { Grades } from './Grades'
import { MachineRisks } from './MachineRisks'
import { Measurements } from './Measurements'
import { SignsSeen } from './SignsSeen'
import { Strip } from './Strip'
import { Survey } from './Survey'

/** How the machine is: surveys, what was found and measured, and what to look at first. */
export function Judge({ machine }: { machine: Machine }) {
  const condition = useQuery(conditionQuery(machine.id))
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  if (condition.error) return <Notice tone="stop" word="Not read.">{messageOf(condition.error)}</Notice>
  if (!condition.data) return null
  return (
    <>
      <Grades machineId={machine.id} condition={condition.data} />
      <Survey machineId={machine.id} condition={condition.data} mayWrite={mayWrite} />
      <Strip condition={condition.data} />
      <Findings machineId={machine.id} condition={condition.data} mayWrite={mayWrite} />
      <Measurements machine={machine} findings={condition.data.findings} mayWrite={mayWrite} />
      <SignsSeen machine={machine} mayWrite={mayWrite} />
      <Adjusters machineId={machine.id} mayWrite={mayWrite} />
      <MachineUpkeep machineId={machine.id} />
      <MachineRisks machineId={machine.id} />
    </>
  )
}
