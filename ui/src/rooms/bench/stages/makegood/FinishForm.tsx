import { useState } from 'react'

import { type Job, useFinishJob } from '../../../../api/work'
import { Choice, Field, FieldGrid, Tick } from '../../../../kit/Field'
import { Faint } from '../../../../kit/Page'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

/** Ends a job: what is in now, what became of the old part, and what the test said. */
export function FinishForm({ job, onDone }: { job: Job; onDone: () => void }) {
  const finish = useFinishJob(job.id)
  const [proven, setProven] = useState(false)
  const [remain, setRemain] = useState(false)
  const [takenOut, setTakenOut] = useState(job.template === 'battery-out')
  const [oldPart, setOldPart] = useState<'' | 'kept' | 'returned' | 'scrapped'>('')
  const isOnSheet = job.assemblyId !== undefined && Boolean(job.place)
  return (
    <RecordForm keptAs={`end of job ${String(job.id)}`} error={finish.error} isPending={finish.isPending} action="Save"
      onCancel={onDone} onSubmit={(data) => {
        finish.mutate({ version: job.version, on: textOf(data, 'on'), minutes: Number(textOf(data, 'minutes')) || 0,
          new: takenOut ? '' : textOf(data, 'new'), takenOut: isOnSheet && takenOut, oldPart,
          keptAt: oldPart === 'kept' ? textOf(data, 'keptAt') : '', proven, provenBy: textOf(data, 'provenBy'), undo: textOf(data, 'undo'), remain },
        { onSuccess: onDone })
      }}>
      <FieldGrid>
        <Field label="Done on" name="on" mono placeholder="today" />
        <Field label="Minutes spent now" name="minutes" inputMode="numeric" />
        {isOnSheet && !takenOut && <Field label={`What is in now at ${job.place ?? ''}`} name="new" mono placeholder="battery NiMH 3.6V"
          hint="Goes onto the sheet in the place of the old one; empty where nothing was replaced" />}
        {isOnSheet && <Choice label="The old part was" value={oldPart} onChange={setOldPart} options={[{ value: '', text: 'none' },
          { value: 'kept', text: 'kept, in the stores' }, { value: 'returned', text: 'returned' }, { value: 'scrapped', text: 'scrapped' }]} />}
        {oldPart === 'kept' && <Field label="Where the old part lies" name="keptAt" placeholder="Store, box 9"
          hint="It stands in the stores, with where it was" />}
        <Field label="What would undo it" name="undo" placeholder={job.usual?.undo} />
      </FieldGrid>
      {isOnSheet && <Tick label={`Nothing is in at ${job.place ?? ''} now`} isOn={takenOut} onChange={setTakenOut} />}
      {job.proof && <>
        <Tick label={`Tested: ${job.proof}`} isOn={proven} onChange={setProven} />
        {proven ? <Field label="What the test said" name="provenBy" placeholder="3.9 V in place" />
          : <Faint>Without the test it ends done, unproven.</Faint>}
      </>}
      {(job.findingKeys?.length ?? 0) > 0
        && <Tick label="What was found is not gone by it" isOn={remain} onChange={setRemain} />}
    </RecordForm>
  )
}
