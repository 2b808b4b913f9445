import { useQuery } from '@tanstack/react-query'

import { diagnosesQuery } from '../../../../api/diagnosis'
import { messageOf } from '../../../../api/problem'
import { useAccount } from '../../../../api/session'
import { Notice } from '../../../../kit/Notice'
import { Skeleton } from '../../../../kit/Skeleton'
import type { OnBench } from '../../stages'
import { ConfigurationsPart } from './ConfigurationsPart'
import { CredentialsPart } from './CredentialsPart'
import { MemoryPart } from './MemoryPart'
import { ModulesPart } from './ModulesPart'
import { OperatingPart } from './OperatingPart'
import { SlotsPart } from './SlotsPart'
import { Symptoms } from './Symptoms'

/** How the machine is set up, and what keeps it from working: symptoms, and the trials that look for their cause. */
export function SetUp({ machine, assemblies }: OnBench) {
  const told = useQuery(diagnosesQuery(machine.id))
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  if (told.error) return <Notice tone="stop" word="Not read.">{messageOf(told.error)}</Notice>
  if (!told.data) return <Skeleton what="Set up" lines={14} />
  return (
    <>
      <Symptoms machine={machine} told={told.data} boards={assemblies} mayWrite={mayWrite} />
      <SlotsPart machine={machine} mayWrite={mayWrite} />
      <ConfigurationsPart machine={machine} mayWrite={mayWrite} />
      <ModulesPart machine={machine} mayWrite={mayWrite} />
      <MemoryPart machine={machine} mayWrite={mayWrite} />
      <OperatingPart machine={machine} mayWrite={mayWrite} />
      {mayWrite && <CredentialsPart machine={machine} />}
    </>
  )
}
