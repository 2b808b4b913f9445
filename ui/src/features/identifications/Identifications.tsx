import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { FittedAssembly } from '../../api/assemblies'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { identificationsQuery } from '../../api/unknowns'
import { Button } from '../../kit/Button'
import { Notice } from '../../kit/Notice'
import { Part } from '../../kit/Part'
import { Identification } from './Identification'

/** Boards of which it is not known what they are: explanations beside the evidence. */
export function Identifications({ machineId, assemblies }: { machineId: number; assemblies: FittedAssembly[] }) {
  const identifications = useQuery(identificationsQuery(machineId))
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [begun, setBegun] = useState<number[]>([])
  const known = (identifications.data ?? []).map(({ assemblyId }) => assemblyId)
  const shown = [...known, ...begun.filter((id) => !known.includes(id))]
  const others = assemblies.filter(({ id }) => !shown.includes(id))
  if (identifications.error) return <Notice tone="stop" word="Not listed.">{messageOf(identifications.error)}</Notice>
  if (shown.length === 0 && (!mayWrite || others.length === 0)) return null
  return (
    <Part
      title="What could it be"
      faint="Explanations against evidence"
      action={mayWrite && others.map(({ id, title }) =>
        <Button key={id} $small onPress={() => { setBegun([...begun, id]) }}>Puzzle over {title}</Button>)}
    >
      {shown.length === 0 && <p>Where a board cannot be named, write down what it could be and what one sees; the
        evidence that would tell most is named.</p>}
      {shown.map((id) => <Identification key={id} assemblyId={id} />)}
    </Part>
  )
}
