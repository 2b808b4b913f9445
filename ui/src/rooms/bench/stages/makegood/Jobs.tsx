import { useQuery } from '@tanstack/react-query'

import { assembliesQuery } from '../../../../api/assemblies'
import type { Machine } from '../../../../api/machines'
import { type Treatment, useAddJob } from '../../../../api/work'
import { Button } from '../../../../kit/Button'
import { inHours } from '../../../../kit/hours'
import { Notice } from '../../../../kit/Notice'
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
      {treatment.again.map((again) => <KeepMending key={`${String(again.assemblyId)} ${again.usual}`} again={again}
        board={boards.find(({ id }) => id === again.assemblyId)?.title ?? 'a board that is no longer in it'}
        usual={treatment.usual.find(({ key }) => key === again.usual)?.title ?? again.usual} />)}
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

/** The question that comes with the third time: go on mending, or replace it? What it took so far stands beside. */
function KeepMending({ again, board, usual }: { again: Treatment['again'][number]; board: string; usual: string }) {
  return (
    <Notice tone="attention" word="Keep mending, or replace?">
      {`${usual} on ${board}: ${String(again.times)} times between ${again.first} and ${again.last}`}
      {again.minutes > 0 && `, ${inHours(again.minutes)} in all`}
      {again.next > 0 && `; once more usually takes ${inHours(again.next)}`}.
    </Notice>
  )
}

function sums({ minutes, spent, waitsFor }: Treatment, open: number) {
  return [`${String(open)} open`, minutes > 0 && `usually ${inHours(minutes)} of work`,
    spent > 0 && `${inHours(spent)} spent`,
    waitsFor.length > 0 && `waiting for ${waitsFor.join(', ')}`].filter(Boolean).join('; ')
}
