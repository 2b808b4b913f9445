import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import type { Machine } from '../../api/machines'
import { looseQuery } from '../../api/moves'
import { peripheralsQuery, type Serving } from '../../api/peripherals'
import { messageOf } from '../../api/problem'
import { Button } from '../../kit/Button'
import { Mark } from '../../kit/Mark'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { usePanel } from '../../kit/usePanel'
import { EndService } from './EndService'
import { ServiceForm } from './ServiceForm'

/** What serves the machine without being fitted in it: whether it is there, and what stops without. */
export function Peripherals({ machine, mayWrite }: { machine: Machine; mayWrite: boolean }) {
  const peripherals = useQuery(peripheralsQuery(machine.id))
  const [adding, setAdding] = usePanel('peripheral')
  if (peripherals.data?.length === 0 && !mayWrite) return null
  return (
    <Part title="Peripherals" faint="That serve it without being fitted in it"
      action={mayWrite && !adding && <Button $small onPress={() => { setAdding(true) }}>Say what serves it</Button>}>
      {peripherals.error && <Notice tone="stop" word="Not read.">{messageOf(peripherals.error)}</Notice>}
      {adding && <Serve machine={machine} onDone={() => { setAdding(false) }} />}
      <ul>{peripherals.data?.map((one) => <One key={one.id} one={one} mayWrite={mayWrite} />)}</ul>
    </Part>
  )
}

function One({ one, mayWrite }: { one: Serving; mayWrite: boolean }) {
  const { standing } = one
  return (
    <li>
      <Mark kind={standing.state === 'there' ? 'done' : standing.stops ? 'problem' : 'part'} />{' '}
      <Link to={one.inId ? `/bench/${String(one.inId)}/take-stock` : `/stores/${String(one.assemblyId)}`}>{one.title}</Link>,
      as {one.as}: {standing.why}{standing.stops && <>; without it: <strong>{standing.stops}</strong></>}.{' '}
      {standing.state === 'there' && one.without && <Faint>Without it: {one.without}. </Faint>}
      {standing.others.length > 0 && <Faint>It serves {standing.others.join(', ')}, too. </Faint>}
      {mayWrite && <EndService one={one} />}
    </li>
  )
}

function Serve({ machine, onDone }: { machine: Machine; onDone: () => void }) {
  const [search, setSearch] = useState('')
  const found = useInfiniteQuery(looseQuery(search))
  const loose = found.data?.pages.flatMap((page) => page.assemblies) ?? []
  return (
    <ServiceForm keptAs={`service of ${String(machine.id)}`} label="What is in store or lent" missing="Choose one of those that are in store or lent." search={search}
      onSearch={setSearch} onDone={onDone} ends={(assemblyId) => ({ assemblyId, machineId: machine.id })}
      items={loose.map((one) => ({ id: one.id,
        text: [one.title, one.part, one.lentTo ? `lent to ${one.lentTo}` : one.place].filter(Boolean).join(', ') }))} />
  )
}
