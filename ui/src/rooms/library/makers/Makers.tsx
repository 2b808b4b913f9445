import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { type Maker, type MakerFields, makersQuery, useAddMaker, useChangeMaker } from '../../../api/library'
import { messageOf } from '../../../api/problem'
import { useAccount } from '../../../api/session'
import { Button } from '../../../kit/Button'
import { EditRecord } from '../../../kit/EditRecord'
import { Field, FieldGrid } from '../../../kit/Field'
import { ListHead } from '../../../kit/ListHead'
import { Figure, ListTable, Scroll } from '../../../kit/ListTable'
import { Notice } from '../../../kit/Notice'
import { Faint, Page } from '../../../kit/Page'
import { RecordForm, textOf } from '../../../kit/RecordForm'
import { useFilters } from '../../../kit/useFilters'
import { usePanel } from '../../../kit/usePanel'

/** Who made machines and parts, from when to when, and how one stands to others. */
export default function Makers() {
  const [parameters, setParameters] = useFilters()
  const words = parameters.get('search') ?? ''
  const makers = useQuery(makersQuery(words))
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [adding, setAdding] = usePanel('maker')
  const [editing, setEditing] = useState<number>()
  const add = useAddMaker()
  return (
    <Page>
      <ListHead title="Makers" label="Filter by words in name, place, ties" words={words}
        onWords={(next) => { setParameters(next ? { search: next } : {}) }}>
        {mayWrite && <Button $tone="main" onPress={() => { setAdding(true) }}>Add a maker</Button>}
      </ListHead>
      <p><Faint>The badge is not the maker: who made for whom stands here, with how one knows. <Link to="/library">
        Back to the library
      </Link></Faint></p>
      {adding && (
        <MakerForm keptAs="new maker" error={add.error} isPending={add.isPending} action="Add the maker"
          onSubmit={(fields) => { add.mutate(fields, { onSuccess: () => { setAdding(false) } }) }}
            onCancel={() => { setAdding(false) }} />
      )}
      {makers.error && <Notice tone="stop" word="Not listed.">{messageOf(makers.error)}</Notice>}
      {makers.data?.filter(({ id }) => id === editing).map((maker) =>
        <Edit key={maker.id} maker={maker} onDone={() => { setEditing(undefined) }} />)}
      {makers.data && makers.data.length > 0 && (
        <Scroll>
          <ListTable>
            <thead><tr><th>Maker</th><th>From and to</th><th>Ties</th><th>How one knows</th>
              <Figure as="th">Machines</Figure><th><span className="only-read">Edit</span></th></tr></thead>
            <tbody>
              {makers.data.map((maker) => (
                <tr key={maker.id}>
                  <td><strong>{maker.name}</strong>{maker.place && <>, {maker.place}</>}
                    {maker.note && <><br /><Faint>{maker.note}</Faint></>}</td>
                  <td>{maker.ended ? `${maker.founded ?? ''} to ${maker.ended}`
                    : maker.founded && `since ${maker.founded}`}</td>
                  <td><ul>{maker.told.map((tie) =>
                    <li key={tie.line}>{tie.words}{tie.source && <Faint> ({tie.source})</Faint>}</li>)}</ul></td>
                  <td>{maker.source}</td>
                  <Figure>{maker.machines}</Figure>
                  <td>{mayWrite && <Button $tone="quiet" aria-label={`Edit ${maker.name}`}
                    onPress={() => { setEditing(maker.id) }}>Edit</Button>}</td>
                </tr>
              ))}
            </tbody>
          </ListTable>
        </Scroll>
      )}
      {makers.data?.length === 0 && <p>{words ? 'No maker has all of these words.' : 'No maker is described yet.'}</p>}
    </Page>
  )
}

type FormProps = { start?: Maker; keptAs: string; base?: unknown; error: Error | null
  isPending: boolean; action: string
  onSubmit: (fields: MakerFields) => void; onCancel: () => void }

function MakerForm({ start, onSubmit, ...form }: FormProps) {
  const read = (data: FormData): MakerFields => {
    const text = (name: string) => textOf(data, name)
    return { name: text('name'), founded: text('founded'), ended: text('ended'), place: text('place'),
      ties: text('ties'), note: text('note'), source: text('source') }
  }
  return (
    <RecordForm {...form} onSubmit={(data) => { onSubmit(read(data)) }}>
      <FieldGrid>
        <Field label="Name" name="name" defaultValue={start?.name} isRequired autoFocus />
        <Field label="Founded" name="founded" defaultValue={start?.founded} mono placeholder="1978" />
        <Field label="Ended" name="ended" defaultValue={start?.ended} mono placeholder="1991~" />
        <Field label="Place" name="place" defaultValue={start?.place} />
        <Field label="How one knows" name="source" defaultValue={start?.source} />
      </FieldGrid>
      <Field
        label="How it stands to others, a line each"
        name="ties"
        defaultValue={start?.ties}
        rows={3}
        mono
        placeholder={'renamed | Brackwater Systems | 1986 | letterheads\nmade for | Quennell Systems | 1983/1985'}
        hint="renamed, made for, made by, licensed to, licensed from, joint, part of, bought | whom | when | how one knows"
      />
      <Field label="Note" name="note" defaultValue={start?.note} rows={2} />
    </RecordForm>
  )
}

function Edit({ maker, onDone }: { maker: Maker; onDone: () => void }) {
  const change = useChangeMaker(maker.id)
  const names = { name: 'name', founded: 'founded', ended: 'ended', place: 'place', ties: 'ties', note: 'note',
    source: 'how one knows' }
  return (
    <EditRecord keptAs={`maker ${String(maker.id)}`}
      record={maker} change={change} newerIn={({ maker: newer }) => newer && { ...maker, ...newer }}
      names={names} onDone={onDone}>
      {(form) => <MakerForm start={maker} action="Save" {...form} />}
    </EditRecord>
  )
}
