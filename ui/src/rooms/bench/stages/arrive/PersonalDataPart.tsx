import { useState } from 'react'
import styled from 'styled-components'

import { type PersonalData, useDecidePersonalData, useNotePersonalData } from '../../../../api/dossier'
import { useAccount } from '../../../../api/session'
import { Button } from '../../../../kit/Button'
import { EditRecord } from '../../../../kit/EditRecord'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { ListTable, Scroll } from '../../../../kit/ListTable'
import { Mark } from '../../../../kit/Mark'
import { Notice } from '../../../../kit/Notice'
import { Part } from '../../../../kit/Part'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { usePanel } from '../../../../kit/usePanel'
import { color } from '../../../../theme'

type Decision = NonNullable<PersonalData['decision']>

const decisions: { value: Decision; text: string }[] = [
  { value: 'open', text: 'open' }, { value: 'keep sealed', text: 'keep sealed' },
    { value: 'return', text: 'return to the owner' },
  { value: 'wipe', text: 'wipe' }, { value: 'archive', text: 'archive' },
]

/** Data of former owners on the machine's media: that it is there, and what was decided. Never what it says. */
export function PersonalDataPart({ machineId, found }: { machineId: number; found: PersonalData[] }) {
  const account = useAccount()
  const [adding, setAdding] = usePanel('personal data')
  const [editing, setEditing] = useState<PersonalData>()
  const note = useNotePersonalData(machineId)
  const open = found.filter(({ doneOn }) => doneOn === null).length
  return (
    <Part
      title="Personal data found"
      faint={open > 0 ? `${String(open)} to decide or to carry out` : undefined}
      action={account?.mayWriteSheets && <Button $small onPress={() => { setAdding(true) }}>
        Note that there is some
      </Button>}
    >
      {(adding || open > 0) && (
        <Notice tone="attention" word="Caution">
          Note where it is and of what kind, never what it says. Image the medium before anything on it is deleted, and
            ask whoever is responsible for privacy.
        </Notice>
      )}
      {adding && (
        <DataForm keptAs={`new personal data of ${String(machineId)}`}
          error={note.error} isPending={note.isPending} action="Save" mayDecide={false}
          onSubmit={(fields) => { note.mutate(fields, { onSuccess: () => { setAdding(false) } }) }}
            onCancel={() => { setAdding(false) }} />
      )}
      {found.length === 0 && !adding && <p>None is noted.</p>}
      {found.length > 0 && (
        <Scroll>
          <ListTable>
            <thead><tr><th>Where</th><th>Kind of data</th><th>Found</th><th>Decision</th><th>By, on</th>
              <th>Carried out</th><th><span className="only-read">Decide</span></th></tr></thead>
            <tbody>
              {found.map((one) => (
                <tr key={one.id}>
                  <td>{one.medium}</td>
                  <td>{one.sort}</td>
                  <td>{one.foundOn}</td>
                  <td><State><Mark kind={one.decision === 'open' ? 'attention' : 'done'} /> {one.decision}</State>
                    {one.reason && `: ${one.reason}`}</td>
                  <td>{[one.decidedBy, one.decidedOn].filter(Boolean).join(', ')}</td>
                  <td>{one.doneOn ?? <State><Mark kind="attention" /> not yet</State>}</td>
                  <td>{account?.mayKeepTheRecord && <Button $tone="quiet" aria-label={`Decide about ${one.medium}`}
                    onPress={() => { setEditing(one) }}>Decide</Button>}</td>
                </tr>
              ))}
            </tbody>
          </ListTable>
        </Scroll>
      )}
      {editing && <Decide key={`${String(editing.id)} ${String(editing.version)}`} data={editing}
        onDone={() => { setEditing(undefined) }} />}
    </Part>
  )
}

type Fields = { medium: string; sort: string; decision: Decision; reason: string; decidedBy: string;
  decidedOn: string | null; doneOn: string | null }

function DataForm({ start, mayDecide, onSubmit, ...form }: {
  start?: PersonalData
  mayDecide: boolean
  keptAs: string
  base?: unknown
  error: Error | null
  isPending: boolean
  action: string
  onSubmit: (fields: Fields) => void
  onCancel: () => void
}) {
  const account = useAccount()
  const [decision, setDecision] = useState<Decision>(start?.decision ?? 'open')
  return (
    <RecordForm
      {...form}
      onSubmit={(data) => {
        const text = (name: string) => textOf(data, name)
        onSubmit({
          medium: text('medium'), sort: text('sort'), decision, reason: text('reason'), decidedBy: text('decidedBy'),
          decidedOn: text('decidedOn') || null, doneOn: text('doneOn') || null,
        })
      }}
    >
      <FieldGrid>
        <Field label="Where it is" name="medium" defaultValue={start?.medium} placeholder="hard disk, second partition"
          isRequired autoFocus={!mayDecide} />
        <Field label="What kind of data" name="sort" defaultValue={start?.sort} placeholder="letters"
          hint="Never what it says" isRequired />
        {mayDecide && <Choice label="Decision" value={decision} options={decisions} onChange={setDecision} />}
        {mayDecide && <Field label="Reason" name="reason" defaultValue={start?.reason} />}
        {mayDecide && decision !== 'open' && <Field label="Decided by" name="decidedBy"
          defaultValue={start?.decidedBy || account?.name} isRequired />}
        {mayDecide && decision !== 'open' && <Field label="Decided on" name="decidedOn"
          defaultValue={start?.decidedOn ?? ''} hint="Empty for today" mono />}
        {mayDecide && decision !== 'open' && <Field label="Carried out on" name="doneOn"
          defaultValue={start?.doneOn ?? ''} placeholder="2026-11-25" mono />}
      </FieldGrid>
    </RecordForm>
  )
}

function Decide({ data, onDone }: { data: PersonalData; onDone: () => void }) {
  const decide = useDecidePersonalData(data.id)
  return (
    <EditRecord keptAs={`personal data ${String(data.id)}`}
      record={data} change={decide} newerIn={(newer) => newer.personalData}
      names={{ decision: 'decision', reason: 'reason', doneOn: 'carried out on' }} onDone={onDone}>
      {(form) => <DataForm start={data} mayDecide action="Save" {...form} />}
    </EditRecord>
  )
}

const State = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 4px;
  color: ${color.ink};
`
