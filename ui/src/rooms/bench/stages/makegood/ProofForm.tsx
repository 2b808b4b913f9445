import { useState } from 'react'

import { type Job, useProveJob } from '../../../../api/work'
import { Field, FieldGrid, Tick } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

/** What the test of a job said that is done: the first time, or again after months without power. */
export function ProofForm({ job, onDone }: { job: Job; onDone: () => void }) {
  const prove = useProveJob(job.id)
  const [passed, setPassed] = useState(true)
  return (
    <RecordForm keptAs={`proof of job ${String(job.id)}`} error={prove.error} isPending={prove.isPending} action="Save"
      onCancel={onDone} onSubmit={(data) => {
        prove.mutate({ version: job.version, on: textOf(data, 'on'), said: textOf(data, 'said'), passed }, { onSuccess: onDone })
      }}>
      <p>The test: {job.proof}</p>
      <FieldGrid>
        <Field label="What the test said" name="said" isRequired={!passed} />
        <Field label="Made on" name="on" mono placeholder="today" />
      </FieldGrid>
      <Tick label="It passed" isOn={passed} onChange={setPassed} />
    </RecordForm>
  )
}
