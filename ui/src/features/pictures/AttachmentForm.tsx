import { useState } from 'react'

import { type Attachment, type AttachmentFields, useChangeAttachment } from '../../api/attachments'
import { EditRecord } from '../../kit/EditRecord'
import { Field, FieldGrid, Tick } from '../../kit/Field'
import { RecordForm, textOf } from '../../kit/RecordForm'

const names = { caption: 'caption', view: 'view', taken: 'date', translation: 'translation', numbers: 'numbers' }
const views = ['front', 'left', 'rear', 'right', 'top', 'underside', 'board top', 'board bottom', 'label', 'screen',
  'inside']

/** What is written about a picture or document. */
export function AttachmentForm({ attachment, onDone }: { attachment: Attachment; onDone: () => void }) {
  const [staffOnly, setStaffOnly] = useState(attachment.staffOnly ?? false)
  const [portrait, setPortrait] = useState(attachment.portrait ?? false)
  const change = useChangeAttachment(attachment.id)
  const isDocument = attachment.kind === 'document'
  const read = (data: FormData): AttachmentFields => {
    const text = (name: string) => textOf(data, name)
    return {
      caption: text('caption'), view: text('view'), taken: text('taken'), language: text('language'),
        translation: text('translation'),
      address: text('address'), captured: text('captured'), numbers: text('numbers'), staffOnly, portrait,
    }
  }
  return (
    <EditRecord keptAs={`picture ${String(attachment.id)}`}
      record={attachment} change={change} newerIn={(newer) => newer.attachment} names={names} onDone={onDone}>
      {({ onSubmit, ...form }) => (
      <RecordForm {...form} action="Save" onSubmit={(data) => { onSubmit(read(data)) }}>
        <FieldGrid>
          <Field label="Caption" name="caption" defaultValue={attachment.caption} autoFocus />
          <Field label={isDocument ? 'What it is' : 'What it shows'} name="view" defaultValue={attachment.view}
            list="views-of-picture" placeholder={isDocument ? 'bill, letter, web page' : 'label'} />
          <Field label={isDocument ? 'Written' : 'Taken'} name="taken" defaultValue={attachment.taken}
            placeholder="2026-11-25" mono />
          {isDocument && <Field label="Language" name="language" defaultValue={attachment.language} placeholder="en"
            mono />}
          {isDocument && <Field label="Address of a web page" name="address" defaultValue={attachment.address} mono />}
          {isDocument && <Field label="Captured on" name="captured" defaultValue={attachment.captured}
            placeholder="2026-11-25" mono />}
        </FieldGrid>
        <Field
          label="Serials and other identifiers that stand in it"
          name="numbers"
          defaultValue={attachment.numbers}
          rows={2}
          mono
          hint="One a line. They are compared with those on machines, boards in store and other documents."
        />
        {isDocument && <Field label="Translation" name="translation" defaultValue={attachment.translation} rows={4} />}
        <datalist id="views-of-picture">{views.map((view) => <option key={view} value={view} />)}</datalist>
        {attachment.kind === 'picture' && attachment.machineId
          && <Tick label="The picture by which the machine is known" isOn={portrait} onChange={setPortrait} />}
        <Tick label="For staff only" isOn={staffOnly} onChange={setStaffOnly} />
      </RecordForm>
      )}
    </EditRecord>
  )
}
