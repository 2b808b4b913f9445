import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { machinesQuery } from '../../api/machines'
import { type Serving, servedQuery } from '../../api/peripherals'
import { messageOf } from '../../api/problem'
import { Button } from '../../kit/Button'
import { Mark } from '../../kit/Mark'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { EndService } from './EndService'
import { ServiceForm } from './ServiceForm'

/** The machines that a peripheral serves, and what stops there without it. */
export function Serves({ assemblyId, mayWrite }: { assemblyId: number; mayWrite: boolean }) {
  const served = useQuery(servedQuery(assemblyId))
  const [adding, setAdding] = useState(false)
  return (
    <Part title="Serves" faint="Machines that use it without holding it"
      action={mayWrite && !adding && <Button $small onPress={() => { setAdding(true) }}>Say what it serves</Button>}>
      {served.error && <Notice tone="stop" word="Not read.">{messageOf(served.error)}</Notice>}
      {adding && <Serve assemblyId={assemblyId} onDone={() => { setAdding(false) }} />}
      {served.data?.length === 0 && !adding && <p><Faint>None that is known of.</Faint></p>}
      <ul>{served.data?.map((one) => <One key={one.id} one={one} mayWrite={mayWrite} />)}</ul>
    </Part>
  )
}

function One({ one, mayWrite }: { one: Serving; mayWrite: boolean }) {
  const { standing } = one
  return (
    <li>
      <Link to={`/bench/${String(one.machineId)}/take-stock`}>{one.accession} {one.machine}</Link>, as {one.as}.{' '}
      {standing.stops ? <><Mark kind="attention" /> Now {standing.why}: {standing.stops}.</>
        : standing.isNeeded ? <>Without it: {one.without || `it has no ${one.as}`}.</>
          : <Faint>{standing.instead.join(', ')} could serve it instead.</Faint>}
      {mayWrite && <> <EndService one={one} /></>}
    </li>
  )
}

function Serve({ assemblyId, onDone }: { assemblyId: number; onDone: () => void }) {
  const [search, setSearch] = useState('')
  const found = useInfiniteQuery(machinesQuery({ search }))
  const machines = found.data?.pages.flatMap((page) => page.machines) ?? []
  return (
    <ServiceForm keptAs={`service by ${String(assemblyId)}`} label="Machine" missing="Choose a machine of the collection." search={search} onSearch={setSearch}
      onDone={onDone} ends={(machineId) => ({ assemblyId, machineId })}
      items={machines.map(({ id, accession, name }) => ({ id, text: `${accession} ${name}` }))} />
  )
}
