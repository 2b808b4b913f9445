import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { type CustodyFields, type CustodyView, useChangeCustody, useTellCustody,
  vocabularyQuery } from '../../../../api/dossier'
import { EditRecord } from '../../../../kit/EditRecord'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { PickParty } from '../../../library/people/PickParty'
import { CitationFields, readCitation, type SourceKind } from '../../evidence/CitationFields'

type FormProps = {
  machineId: number
  start?: CustodyView
  keptAs: string
  base?: unknown
  error: Error | null
  isPending: boolean
  action: string
  onSubmit: (fields: CustodyFields) => void
  onCancel: () => void
}

function CustodyForm({ machineId, start, onSubmit, ...form }: FormProps) {
  const vocabulary = useQuery(vocabularyQuery)
  const [role, setRole] = useState(start?.role ?? 'used-by')
  const [kind, setKind] = useState<SourceKind>(start?.kind ?? 'recalled')
  const [party, setParty] = useState<number | null>(start?.partyId ?? null)
  if (!vocabulary.data) return null
  const cited = start?.pictureId ? { pictureId: start.pictureId, region: start.region } : undefined
  const read = (data: FormData): CustodyFields => ({
    role, partyId: party, who: party ? '' : textOf(data, 'party'), place: textOf(data, 'place'),
      dates: textOf(data, 'dates'), usedFor: textOf(data, 'usedFor'),
    ...readCitation(data, kind, cited),
  })
  return (
    <RecordForm {...form} onSubmit={(data) => { onSubmit(read(data)) }}>
      <FieldGrid>
        <Choice label="It was" value={role}
          options={vocabulary.data.roles.map(({ key, words }) => ({ value: key, text: words }))} onChange={setRole} />
        <PickParty label="By or to whom" name="party" start={{ id: start?.partyId ?? null, name: start?.whom ?? '' }}
          onPick={setParty} free />
        <Field label="When" name="dates" defaultValue={start?.dates ?? ''} mono autoFocus
          hint="1984, 1984~ (about), 198X, 1983/1985, ../1990" />
        <Field label="Where" name="place" defaultValue={start?.place ?? ''} />
        <Field label="Used for" name="usedFor" defaultValue={start?.usedFor ?? ''} />
      </FieldGrid>
      <CitationFields machineId={machineId} kind={kind} onKind={setKind} start={start} cited={cited} />
    </RecordForm>
  )
}

/** Notes who had the machine, when and where. */
export function TellCustody({ machineId, onDone }: { machineId: number; onDone: () => void }) {
  const tell = useTellCustody(machineId)
  return <CustodyForm keptAs={`new custody of ${String(machineId)}`}
    machineId={machineId} error={tell.error} isPending={tell.isPending} action="Add it to the chain"
    onSubmit={(fields) => { tell.mutate(fields, { onSuccess: onDone }) }} onCancel={onDone} />
}

/** Changes a statement about the past. */
export function ChangeCustody({ machineId, link, onDone }: { machineId: number; link: CustodyView;
  onDone: () => void }) {
  const change = useChangeCustody(link.id)
  const names = { role: 'role', who: 'who', place: 'where', dates: 'when', usedFor: 'used for', kind: 'source',
    cited: 'which source' }
  return (
    <EditRecord keptAs={`custody ${String(link.id)}`}
      record={link} change={change} newerIn={({ custody }) => custody && { ...link, ...custody }}
      names={names} onDone={onDone}>
      {(form) => <CustodyForm machineId={machineId} start={link} action="Save" {...form} />}
    </EditRecord>
  )
}
