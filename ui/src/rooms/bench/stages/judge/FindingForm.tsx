import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { citableQuery } from '../../../../api/attachments'
import type { Region } from '../../../../api/dossier'
import type { Condition, GuideItem, SeenFinding, Severity } from '../../../../api/judge'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { MarkedPicture } from '../../../../features/pictures/MarkedPicture'
import { PhotoButton } from '../../../../features/pictures/PhotoButton'

type Props = {
  machineId?: number // whose pictures can show it
  item: Pick<GuideItem, 'subsystem' | 'kinds' | 'parts'>
  severities: Condition['severities']
  keptAs: string
  base?: unknown
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
  const [region, setRegion] = useState<Region>()
  const citable = useQuery({ ...citableQuery({ machine: machineId ?? 0 }), enabled: machineId !== undefined })
  const pictures = (citable.data ?? []).filter(({ kind }) => kind === 'picture')
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
          new: { subsystem: item.subsystem, kind, assemblyId: chosen?.assemblyId,
            designator: isLine ? chosen?.place.split(' ')[0] : '', place: textOf(data, 'place'), attachmentId: picture,
              region: picture ? region : undefined },
        })
      }}
    >
      <FieldGrid>
        <Field label="What" name="kind" list="usual-findings" isRequired autoFocus
          placeholder={item.kinds.slice(0, 3).join(', ')} />
        <Choice label="How grave" value={severity}
          options={severities.map(({ grade, means }) => ({ value: grade as Severity, text: `${grade}: ${means}` }))}
            onChange={setSeverity} />
        {item.parts.length > 0 && <Choice label="On" value={part}
          options={[{ value: '', text: 'none of these' },
            ...item.parts.map(({ board, place },
              i) => ({ value: String(i), text: place === board ? board : `${board} ${place}` }))]}
                onChange={setPart} />}
        <Field label="Where, in words" name="place" placeholder="rear left corner" />
      </FieldGrid>
      <datalist id="usual-findings">{item.kinds.map((kind) => <option key={kind} value={kind} />)}</datalist>
      <Field label="What one sees" name="note" rows={2} />
      {pictures.length > 0 && (
        <Choice
          label="Picture that shows it"
          value={String(picture ?? '')}
          options={[{ value: '', text: 'none' },
            ...pictures.map(({ id, caption, view, fileName }) => ({ value: String(id),
              text: caption || view || fileName }))]}
          onChange={(id) => { setPicture(Number(id) || undefined); setRegion(undefined) }}
        />
      )}
      {picture && <MarkedPicture id={picture} alt="What was found; drag over the spot" region={region}
        onMark={setRegion} />}
      {machineId !== undefined && <div><PhotoButton owner={{ machine: machineId }}
        onKept={([id]) => { setPicture(id); setRegion(undefined) }} /></div>}
    </RecordForm>
  )
}
