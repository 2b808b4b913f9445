import { useState } from 'react'

import { type Attachment, type AttachmentFields, useChangeAttachment } from '../api/attachments'
import { ProblemError } from '../api/problem'
import { ChangedMeanwhile, Differences } from '../kit/ChangedMeanwhile'
import { Field, FieldGrid, Tick } from '../kit/Field'
import { RecordForm, textOf } from '../kit/RecordForm'

const views = ['front', 'left', 'rear', 'right', 'top', 'underside', 'board top', 'board bottom', 'label', 'screen', 'inside']

/** What is written about a picture or document. */
export function AttachmentForm({ attachment, onDone }: { attachment: Attachment; onDone: () => void }) {
  const [base, setBase] = useState(attachment)
  const [staffOnly, setStaffOnly] = useState(attachment.staffOnly ?? false)
  const change = useChangeAttachment(attachment.id)
  const newer = change.error instanceof ProblemError ? change.error.problem?.newer?.attachment : undefined
  const isDocument = attachment.kind === 'document'
  const read = (data: FormData): AttachmentFields => {
    const text = (name: string) => textOf(data, name)
    return {
      caption: text('caption'), view: text('view'), taken: text('taken'), language: text('language'), translation: text('translation'),
      address: text('address'), captured: text('captured'), staffOnly,
    }
  }
  return (
    <>
      {newer && (
        <ChangedMeanwhile onGoOn={() => { setBase(newer); change.reset() }} onDrop={onDone}>
          <Differences<Attachment> names={{ caption: 'caption', view: 'view', taken: 'date', translation: 'translation' }} mine={base} theirs={newer} />
        </ChangedMeanwhile>
      )}
      <RecordForm error={newer ? null : change.error} isPending={change.isPending} action="Keep it" onSubmit={(data) => { change.mutate({ ...read(data), version: base.version }, { onSuccess: onDone }) }} onCancel={onDone}>
        <FieldGrid>
          <Field label="Caption" name="caption" defaultValue={attachment.caption} autoFocus />
          <Field label={isDocument ? 'What it is' : 'What it shows'} name="view" defaultValue={attachment.view} list="views-of-picture" placeholder={isDocument ? 'bill, letter, web page' : 'label'} />
          <Field label={isDocument ? 'Written' : 'Taken'} name="taken" defaultValue={attachment.taken} placeholder="2026-11-25" mono />
          {isDocument && <Field label="Language" name="language" defaultValue={attachment.language} placeholder="en" mono />}
          {isDocument && <Field label="Address of a web page" name="address" defaultValue={attachment.address} mono />}
          {isDocument && <Field label="Captured on" name="captured" defaultValue={attachment.captured} placeholder="2026-11-25" mono />}
        </FieldGrid>
        {isDocument && <Field label="Translation" name="translation" defaultValue={attachment.translation} rows={4} />}
        <datalist id="views-of-picture">{views.map((view) => <option key={view} value={view} />)}</datalist>
        <Tick label="For staff only" isOn={staffOnly} onChange={setStaffOnly} />
      </RecordForm>
    </>
  )
}
