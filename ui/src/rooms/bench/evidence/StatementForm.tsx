import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { Schemas } from '../../../api/client'
import { useStateEvidence, vocabularyQuery } from '../../../api/dossier'
import { Field, FieldGrid, Tick } from '../../../kit/Field'
import { RecordForm, textOf } from '../../../kit/RecordForm'
import { PickParty } from '../../library/people/PickParty'
import { type Cited, CitationFields, readCitation, type SourceKind } from './CitationFields'

type Attribute = Schemas['FactAttribute']
type Props = { machineId: number; attribute?: string; subject?: string; kind?: SourceKind; cited?: Cited;
  onDone: () => void }

/** Notes what a source says of an attribute: one of those that are offered, or any other word. */
export function StatementForm({ machineId, attribute: start = 'serial', subject = '', kind: startKind = 'seen', cited,
  onDone }: Props) {
  const vocabulary = useQuery(vocabularyQuery)
  if (!vocabulary.data) return null
  return <Filled machineId={machineId} attributes={vocabulary.data.attributes} start={start} subject={subject}
    startKind={startKind} cited={cited} onDone={onDone} />
}

function Filled({ machineId, attributes, start, subject, startKind, cited, onDone }: { machineId: number;
  attributes: Attribute[]; start: string; subject: string; startKind: SourceKind; cited: Cited | undefined;
  onDone: () => void }) {
  const [about, setAbout] = useState(attributes.find(({ key }) => key === start)?.label ?? start)
  const [kind, setKind] = useState<SourceKind>(startKind)
  const [party, setParty] = useState<number | null>(null)
  const [isShown, setShown] = useState(false)
  const state = useStateEvidence(machineId)
  const known = attributeOf(attributes, about)
  return (
    <RecordForm
      keptAs={`statement of ${String(machineId)} ${start} ${subject}`}
      error={state.error}
      isPending={state.isPending}
      action="Save"
      onSubmit={(form) => {
        const body = { attribute: known?.key ?? about.trim(), subject: textOf(form, 'subject'),
          value: textOf(form, 'value'), ...readCitation(form, kind, cited), partyId: party,
          ...(isShown && { nature: 'seen-by' as const }) }
        state.mutate(body, { onSuccess: onDone })
      }}
      onCancel={onDone}
    >
      <FieldGrid>
        <Field label="About" name="attribute" value={about} onChange={setAbout} list="attributes-known" isRequired
          hint={known ? undefined : 'A name of your own; or choose one of those that are offered'} />
        <Field label={known?.unit ? `What the source says, ${known.unit}` : 'What the source says'} name="value"
          isRequired autoFocus mono hint={hintOf(known)} />
        <Field label="Of which part" name="subject" defaultValue={subject} placeholder="HD1"
          hint="Empty for the machine itself" />
      </FieldGrid>
      <datalist id="attributes-known">{attributes.map(({ key, label }) => <option key={key} value={label} />)}
      </datalist>
      <CitationFields machineId={machineId} kind={kind} onKind={setKind} cited={cited} />
      {(kind === 'firmware' || isShown) && <Tick label="It is only what the firmware shows of it" isOn={isShown}
        onChange={setShown} />}
      <FieldGrid><PickParty label="Who says it" name="party" onPick={setParty} /></FieldGrid>
    </RecordForm>
  )
}

/** Finds an attribute by what is typed: its label or its key. */
function attributeOf(attributes: Attribute[], typed: string): Attribute | undefined {
  const word = typed.trim().toLowerCase()
  return attributes.find(({ key, label }) => label.toLowerCase() === word || key === word)
}

function hintOf(known: Attribute | undefined): string | undefined {
  if (!known) return undefined
  return `${known.form === 'yes-no' ? 'Begin with yes or no. ' : ''}Settled best: ${known.settledBy}`
}
