import { useQuery } from '@tanstack/react-query'

import { assembliesQuery } from '../../../../api/assemblies'
import type { Machine } from '../../../../api/machines'
import { type Treatment, useAddJob } from '../../../../api/work'
import { Button } from '../../../../kit/Button'
import { inHours } from '../../../../kit/hours'
import { Part } from '../../../../kit/Part'
import { usePanel } from '../../../../kit/usePanel'
import { JobForm } from './JobForm'
import { OneJob } from './OneJob'

type Props = { machine: Machine; treatment: Treatment; mayWrite: boolean }

/** The jobs of the machine: the open ones, then those that are ended. */
export function Jobs({ machine, treatment, mayWrite }: Props) {
  const [adding, setAdding] = usePanel('job')
  const add = useAddJob(machine.id)
  const boards = useQuery(assembliesQuery(machine.id)).data ?? []
  const open = treatment.jobs.filter(({ state }) => state !== 'done' && state !== 'declined')
  const ended = treatment.jobs.filter((job) => !open.includes(job))
  const one = (job: Treatment['jobs'][number]) => <OneJob key={job.id} job={job} boards={boards} usual={treatment.usual}
    mayWrite={mayWrite} />
  return (
    <Part title="Jobs" faint={sums(treatment, open.length)}
      action={mayWrite && !adding && <Button $small onPress={() => { setAdding(true) }}>Put down a job</Button>}>
      {adding && <JobForm keptAs={`job of ${String(machine.id)}`} action="Save" error={add.error}
        isPending={add.isPending} boards={boards} usual={treatment.usual} onCancel={() => { setAdding(false) }}
        onSubmit={(fields) => { add.mutate(fields, { onSuccess: () => { setAdding(false) } }) }} />}
      {open.map(one)}
      {open.length === 0 && !adding && <p>No job is open.</p>}
      {ended.length > 0 && (
        <details>
          <summary>{ended.length === 1 ? '1 job is ended' : `${String(ended.length)} jobs are ended`}</summary>
          {ended.map(one)}
        </details>
      )}
    </Part>
  )
}

function sums({ minutes, spent, waitsFor }: Treatment, open: number) {
  return [`${String(open)} open`, minutes > 0 && `usually ${inHours(minutes)} of work`,
    spent > 0 && `${inHours(spent)} spent`,
    waitsFor.length > 0 && `waiting for ${waitsFor.join(', ')}`].filter(Boolean).join('; ')
}
