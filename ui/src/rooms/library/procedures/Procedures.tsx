import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { type Procedure, procedureQuery, proceduresQuery, type ProcedureFields,
  useChangeProcedure } from '../../../api/openup'
import { messageOf } from '../../../api/problem'
import { useAccount } from '../../../api/session'
import { Button } from '../../../kit/Button'
import { EditRecord } from '../../../kit/EditRecord'
import { Field, FieldGrid } from '../../../kit/Field'
import { Notice } from '../../../kit/Notice'
import { Faint, Page, Title } from '../../../kit/Page'
import { Part } from '../../../kit/Part'
import { RecordForm, textOf } from '../../../kit/RecordForm'
import { Variants } from '../../bench/stages/openup/Variants'

/** How models are taken apart. */
export default function Procedures() {
  const procedures = useQuery(proceduresQuery)
  return (
    <Page>
      <Title><Link to="/library">Library</Link> / Procedures</Title>
      <p><Faint>A log of one machine becomes the procedure of its model, in the stage Open up; the next machine starts
        from it.</Faint></p>
      {procedures.error && <Notice tone="stop" word="Not listed.">{messageOf(procedures.error)}</Notice>}
      {procedures.data?.length === 0 && <p>There are none yet.</p>}
      {procedures.data?.map((one) => <One key={one.id} procedure={one} />)}
    </Page>
  )
}

function One({ procedure }: { procedure: Procedure }) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const told = useQuery(procedureQuery(procedure.id)).data
  const [editing, setEditing] = useState(false)
  return (
    <Part
      title={`${procedure.maker} ${procedure.model}: ${procedure.title}`}
      faint={told && `${String(told.steps.length)} steps`}
      action={mayWrite && !editing && <Button $small aria-label={`Edit ${procedure.title} of ${procedure.model}`}
        onPress={() => { setEditing(true) }}>Edit</Button>}
    >
      {editing ? (
        <Edit procedure={procedure} onDone={() => { setEditing(false) }} />
      ) : (
        <>
          {procedure.warnings && <Notice tone="attention" word="Before one starts.">{procedure.warnings}</Notice>}
          <ol>{told?.steps.map((step,
            i) => <li key={i}>{i + 1}. <strong>{step.off}</strong> <Faint>
              {[...step.fasteners.map(({ count, kind }) => `${String(count)} x ${kind}`),
                ...step.tabs.map((tab) => `mind: ${tab}`), ...step.connectors.map((name) => `unplug ${name}`),
                  step.special && 'in this order', step.note].filter(Boolean).join('; ')}
            </Faint></li>)}</ol>
          {told && <Variants variants={told.variants} />}
        </>
      )}
    </Part>
  )
}

function Edit({ procedure, onDone }: { procedure: Procedure; onDone: () => void }) {
  const change = useChangeProcedure(procedure.id)
  return (
    <EditRecord keptAs={`procedure ${String(procedure.id)}`}
      record={procedure} change={change} newerIn={(newer) => newer.procedure}
      names={{ title: 'name', body: 'steps', warnings: 'warnings' }} onDone={onDone}>
      {({ onSubmit, ...form }) => (
        <RecordForm
          {...form}
          action="Save"
          onSubmit={(data) => {
            const text = (name: string) => textOf(data, name)
            const fields: ProcedureFields = { maker: text('maker'), model: text('model'), title: text('title'),
              body: text('body'), warnings: text('warnings') }
            onSubmit(fields)
          }}
        >
          <FieldGrid>
            <Field label="Maker" name="maker" defaultValue={procedure.maker} />
            <Field label="Model" name="model" defaultValue={procedure.model} isRequired />
            <Field label="How far it goes" name="title" defaultValue={procedure.title} isRequired autoFocus />
          </FieldGrid>
          <Field label="What to know before one starts" name="warnings" defaultValue={procedure.warnings} rows={2} />
          <Field label="Steps, one a line" name="body" defaultValue={procedure.body} rows={10} mono isRequired
            hint="As in a log: Lid | 4x M3x8 PH1 @A1 | tab: front left | unplug J5 | in this order | note:" />
        </RecordForm>
      )}
    </EditRecord>
  )
}
