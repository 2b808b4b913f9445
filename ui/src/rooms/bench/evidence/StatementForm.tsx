import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { useStateEvidence, vocabularyQuery } from '../../../api/dossier'
import { Choice, Field, FieldGrid } from '../../../kit/Field'
import { RecordForm, textOf } from '../../../kit/RecordForm'
import { PickParty } from '../../library/people/PickParty'
import { type Cited, CitationFields, readCitation, type SourceKind } from './CitationFields'

const own = ''

type Props = { machineId: number; attribute?: string; kind?: SourceKind; cited?: Cited; onDone: () => void }

/** Notes what a source says of an attribute. */
export function StatementForm({ machineId, attribute: start = 'serial', kind: startKind = 'seen', cited,
  onDone }: Props) {
  const vocabulary = useQuery(vocabularyQuery)
  const [attribute, setAttribute] = useState(start)
  const [kind, setKind] = useState<SourceKind>(startKind)
  const [party, setParty] = useState<number | null>(null)
  const state = useStateEvidence(machineId)
  const attributes = vocabulary.data?.attributes ?? []
  const options = [...attributes.map(({ key, label }) => ({ value: key, text: label })),
    { value: own, text: 'something else' }]
  const known = attributes.find(({ key }) => key === attribute)
  if (!vocabulary.data) return null
  return (
    <RecordForm
      error={state.error}
      isPending={state.isPending}
      action="Note it"
      onSubmit={(form) => {
        const body = { attribute: attribute || textOf(form, 'attribute'), value: textOf(form, 'value'),
          ...readCitation(form, kind, cited), partyId: party }
        state.mutate(body, { onSuccess: onDone })
      }}
      onCancel={onDone}
    >
      <FieldGrid>
        <Choice label="About" value={attribute} options={options} onChange={setAttribute} />
        {!known && <Field label="Name of it" name="attribute" placeholder="colour" isRequired />}
        <Field label={known?.unit ? `What the source says, ${known.unit}` : 'What the source says'} name="value"
          isRequired autoFocus mono hint={known && `Settled best: ${known.settledBy}`} />
      </FieldGrid>
      <CitationFields machineId={machineId} kind={kind} onKind={setKind} cited={cited} />
      <FieldGrid><PickParty label="Who says it" name="party" onPick={setParty} /></FieldGrid>
    </RecordForm>
  )
}
