import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { FittedAssembly } from '../api/assemblies'
import { messageOf } from '../api/problem'
import { useAccount } from '../api/session'
import { mysteriesQuery } from '../api/unknowns'
import { Button } from '../kit/Button'
import { Notice } from '../kit/Notice'
import { Part } from '../kit/Part'
import { Mystery } from './Mystery'

/** Boards of which it is not known what they are: explanations beside the evidence. */
export function Mysteries({ machineId, assemblies }: { machineId: number; assemblies: FittedAssembly[] }) {
  const mysteries = useQuery(mysteriesQuery(machineId))
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [begun, setBegun] = useState<number[]>([])
  const known = (mysteries.data ?? []).map(({ assemblyId }) => assemblyId)
  const shown = [...known, ...begun.filter((id) => !known.includes(id))]
  const others = assemblies.filter(({ id }) => !shown.includes(id))
  if (mysteries.error) return <Notice tone="stop" word="Not listed.">{messageOf(mysteries.error)}</Notice>
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
      {shown.map((id) => <Mystery key={id} assemblyId={id} />)}
    </Part>
  )
}
