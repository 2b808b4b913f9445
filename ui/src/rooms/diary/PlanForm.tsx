import { useState } from 'react'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import { type Plan, type PlanFields, rulesQuery, useChangePlan, useVoidPlan } from '../../api/upkeep'
import { openJobsQuery } from '../../api/work'
import { useAccount } from '../../api/session'
import { Button, Buttons } from '../../kit/Button'
import { EditRecord } from '../../kit/EditRecord'
import { Choice, Field, FieldGrid } from '../../kit/Field'
import { inHours } from '../../kit/hours'
import { Mark } from '../../kit/Mark'
import { NotSaved } from '../../kit/NotSaved'
import { Faint } from '../../kit/Page'
import { RecordForm, textOf } from '../../kit/RecordForm'

type Props = { keptAs: string; base?: unknown; start?: PlanFields; action: string; error: Error | null
  isPending: boolean; onSubmit: (fields: PlanFields) => void; onCancel: () => void }

/** What somebody means to do on a day: in words, or a job, or a round. */
export function PlanForm({ start, onSubmit, ...form }: Props) {
  const jobs = useQuery(openJobsQuery).data ?? []
  const rules = useQuery(rulesQuery).data?.filter(({ everyMonths }) => everyMonths > 0) ?? []
  const [of,
    setOf] = useState(start?.jobId ? `job ${String(start.jobId)}` : start?.ruleId ? `rule ${String(start.ruleId)}` : '')
  const [wrong, setWrong] = useState<Record<string, string>>({})
  const number = (kind: string) => of.startsWith(kind) ? Number(of.slice(kind.length + 1)) : undefined
  return (
    <RecordForm {...form} wrong={wrong} onSubmit={(data) => {
      const minutes = minutesIn(textOf(data, 'minutes'))
      setWrong(minutes === undefined ? { minutes: 'Write hours, as 1.5, or leave it empty.' } : {})
      if (minutes === undefined) return
      const jobId = number('job')
      onSubmit({ on: textOf(data, 'on'), what: textOf(data, 'what'), who: textOf(data, 'who'), minutes, jobId,
        ruleId: number('rule'), machineId: jobs.find(({ id }) => id === jobId)?.machineId ?? start?.machineId,
        doneOn: textOf(data, 'doneOn') })
    }}>
      <FieldGrid>
        <Field label="Day" name="on" defaultValue={start?.on} mono isRequired placeholder="2026-12-04" />
        <Choice label="It is" name="of" value={of} onChange={setOf} options={[{ value: '', text: 'something else, in words' },
          ...rules.map(({ id, task }) => ({ value: `rule ${String(id)}`, text: `Round: ${task}` })),
          ...jobs.map(({ id, accession, title }) => ({ value: `job ${String(id)}`, text: `${accession}: ${title}` })),
          ...(start?.ruleId && !rules.some(({ id }) => id === start.ruleId) ? [{ value: `rule ${String(start.ruleId)}`,
            text: 'the round as before' }] : []),
          ...(start?.jobId && !jobs.some(({ id }) => id === start.jobId) ? [{ value: `job ${String(start.jobId)}`,
            text: 'the job as before' }] : [])]} />
        <Field label="In words" name="what" defaultValue={start?.what} isRequired={of === ''}
          placeholder="Fetch the card extender from the workshop" />
        <Field label="Hours" name="minutes" inputMode="decimal" defaultValue={start?.minutes ? String(Number((start.minutes / 60).toFixed(2))) : undefined} />
        <Field label="Who" name="who" defaultValue={start?.who} />
        {start && !number('job') && <Field label="Done on" name="doneOn" defaultValue={start.doneOn} mono
          placeholder="empty while it is not" />}
      </FieldGrid>
    </RecordForm>
  )
}

/** Hours as they are typed, in minutes; undefined for what is none. */
export function minutesIn(hours: string): number | undefined {
  const given = Number(hours.replace(',', '.'))
  return Number.isFinite(given) && given >= 0 && given < 1000 ? Math.round(given * 60) : undefined
}

/** A plan as a line that can be changed. */
export function OnePlan({ plan, isDone }: { plan: Plan; isDone: boolean }) {
  const [editing, setEditing] = useState(false)
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const change = useChangePlan(plan.id)
  const voiding = useVoidPlan()
  if (editing) {
    return (
      <>
        <EditRecord keptAs={`plan ${String(plan.id)}`} record={plan} change={change} newerIn={(newer) => newer.plan}
          names={{ on: 'day', what: 'words', minutes: 'minutes', who: 'who', doneOn: 'done on' }}
          onDone={() => { setEditing(false) }}>
          {(form) => <PlanForm start={plan} action="Save" {...form} />}
        </EditRecord>
        <Buttons><Button $small $tone="quiet" isPending={voiding.isPending} aria-label={`Delete the plan ${plan.task}`}
          onPress={() => { voiding.mutate(plan, { onSuccess: () => { setEditing(false) } }) }}>Delete</Button></Buttons>
        <NotSaved error={voiding.error} />
      </>
    )
  }
  return (
    <>
      <Faint>{plan.on}</Faint> {plan.accession && plan.machineId && <Link to={`/bench/${String(plan.machineId)}/make-good`}>
        {plan.accession}</Link>} {plan.task}{plan.who && `, ${plan.who}`}
      {(plan.minutes ?? 0) > 0 && <Faint> {inHours(plan.minutes ?? 0)}</Faint>}{' '}
      {isDone && <><Mark kind="done" /> done </>}
      {mayWrite && <Button $small $tone="quiet" aria-label={`Edit the plan ${plan.task}`} onPress={() => { setEditing(true) }}>
        Edit</Button>}
    </>
  )
}
