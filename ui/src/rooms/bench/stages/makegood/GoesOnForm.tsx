import { useState } from 'react'

import { type Job, useWorkOnJob } from '../../../../api/work'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

type State = Parameters<ReturnType<typeof useWorkOnJob>['mutate']>[0]['state']

const states: { value: State; text: string }[] = [{ value: 'in hand', text: 'in hand' },
  { value: 'waiting for part', text: 'waiting for a part' }, { value: 'waiting for hands', text: 'waiting for hands' },
  { value: 'declined', text: 'not to be done' }]

/** How a job goes on: it waits, was done in part, or is declined. */
export function GoesOnForm({ job, onDone }: { job: Job; onDone: () => void }) {
  const goOn = useWorkOnJob(job.id)
  const [state, setState] = useState<State>(job.state === 'done' ? 'in hand' : job.state)
  return (
    <RecordForm keptAs={`goes on, job ${String(job.id)}`} error={goOn.error} isPending={goOn.isPending} action="Save"
      onCancel={onDone} onSubmit={(data) => {
        goOn.mutate({ version: job.version, state, minutes: Number(textOf(data, 'minutes')) || 0, left: textOf(data, 'left'),
          why: textOf(data, 'why') }, { onSuccess: onDone })
      }}>
      <FieldGrid>
        <Choice label="It is" name="state" value={state} onChange={setState} options={states} />
        <Field label="Minutes spent now" name="minutes" inputMode="numeric" />
        <Field label="Left to do" name="left" defaultValue={job.left} placeholder="the traces beside it" />
        <Field label="Why" name="why" defaultValue={job.why} isRequired={state === 'declined'} />
      </FieldGrid>
    </RecordForm>
  )
}
