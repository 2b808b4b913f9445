import { useState } from 'react'

import { viewOf } from '../../../../api/attachments'
import type { Condition, GuideItem, SeenFinding, Severity } from '../../../../api/judge'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { PhotoButton } from '../../../../pictures/PhotoButton'
import { Thumbs } from '../openup/Thumbs'

type Props = {
  machineId: number
  item: GuideItem
  severities: Condition['severities']
  error: Error | null
  isPending: boolean
  action: string
  onSubmit: (seen: SeenFinding) => void
  onCancel: () => void
}

/** Something found: what, how grave, and where. */
export function FindingForm({ machineId, item, severities, onSubmit, ...form }: Props) {
  const [severity, setSeverity] = useState<Severity>('watch')
  const [part, setPart] = useState(item.parts.length === 1 ? '0' : '')
  const [picture, setPicture] = useState<number>()
  const [wrong, setWrong] = useState<Record<string, string>>({})
  return (
    <RecordForm
      {...form}
      wrong={wrong}
      onSubmit={(data) => {
        const kind = textOf(data, 'kind')
        if (!kind) {
          setWrong({ kind: 'Say what was found.' })
          return
        }
        const chosen = part === '' ? undefined : item.parts[Number(part)]
        const isLine = (chosen?.line ?? 0) > 0
        onSubmit({
          severity, note: textOf(data, 'note'), findingId: 0,
          new: { subsystem: item.subsystem, kind, assemblyId: chosen?.assemblyId, designator: isLine ? chosen?.place.split(' ')[0] : '', place: textOf(data, 'place'), attachmentId: picture },
        })
      }}
    >
      <FieldGrid>
        <Field label="What" name="kind" list="usual-findings" isRequired autoFocus placeholder={item.kinds.slice(0, 3).join(', ')} />
        <Choice label="How grave" value={severity} options={severities.map(({ grade, means }) => ({ value: grade as Severity, text: `${grade}: ${means}` }))} onChange={setSeverity} />
        {item.parts.length > 0 && <Choice label="On" value={part} options={[{ value: '', text: 'none of these' }, ...item.parts.map(({ board, place }, i) => ({ value: String(i), text: place === board ? board : `${board} ${place}` }))]} onChange={setPart} />}
        <Field label="Where, in words" name="place" placeholder="rear left corner" />
      </FieldGrid>
      <datalist id="usual-findings">{item.kinds.map((kind) => <option key={kind} value={kind} />)}</datalist>
      <Field label="What one sees" name="note" rows={2} />
      <Thumbs>{picture && <li><img src={viewOf(picture, 'thumb')} alt="What was found" width={96} height={72} /></li>}</Thumbs>
      <div><PhotoButton owner={{ machine: machineId }} onKept={({ id }) => { setPicture(id) }} /></div>
    </RecordForm>
  )
}
