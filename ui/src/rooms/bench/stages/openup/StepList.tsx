import { useState } from 'react'
import styled from 'styled-components'

import { type StepView, type TeardownView, useChangeStep, useVoidStep, type Wiring } from '../../../../api/openup'
import { Button, Buttons } from '../../../../kit/Button'
import { EditRecord } from '../../../../kit/EditRecord'
import { keepUnder } from '../../../../data/drafts'
import { Mark } from '../../../../kit/Mark'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { PhotoButton } from '../../../../features/pictures/PhotoButton'
import { color, space } from '../../../../theme'
import { StepFacts } from './StepFacts'
import { StepForm } from './StepForm'

type Props = { log: TeardownView; wiring: Wiring; boards: string[]; mayWrite: boolean }

/** What came off so far, the last on top: that is what lies nearest. */
export function StepList({ log, wiring, boards, mayWrite }: Props) {
  const [editing, setEditing] = useState<number>()
  if (log.steps.length === 0)
    return <p><Faint>Nothing came off yet. The first step may be the mains lead: pull it, and write it down.</Faint></p>
  return (
    <List aria-label="Steps, the last on top" reversed>
      {[...log.steps].reverse().map((step) => (
        <li key={step.id}>
          {editing === step.id ? (
            <Edit log={log} step={step} wiring={wiring} boards={boards} onDone={() => { setEditing(undefined) }} />
          ) : (
            <One step={step} machineId={log.machineId} mayWrite={mayWrite} onEdit={() => { setEditing(step.id) }} />
          )}
        </li>
      ))}
    </List>
  )
}

function One({ step, machineId, mayWrite, onEdit }: { step: StepView; machineId: number; mayWrite: boolean;
  onEdit: () => void }) {
  const change = useChangeStep(step.id)
  const voiding = useVoidStep()
  const error = change.error ?? voiding.error
  return (
    <>
      <Head>
        <Mark kind={step.state === 'off' ? 'working' : step.state === 'back' ? 'done' : 'none'} />
        <strong>{step.n}. {step.off}</strong>
        <Faint>{step.state === 'back' ? 'back on' : step.state === 'skipped' ? `left off: ${step.reason ?? ''}`
          : 'off'}</Faint>
        {step.special && <Faint>in this order</Faint>}
      </Head>
      {step.cautions.length > 0 && <Faint>care was due: {step.cautions.map(({ word }) =>
        word.toLowerCase()).join(', ')}</Faint>}
      <StepFacts step={step} />
      {mayWrite && (
        <Buttons>
          <PhotoButton owner={{ machine: machineId }} label={`Photo of step ${String(step.n)}`} isQuiet
            onKept={(ids) => {
              change.mutate({ version: step.version, step: stepOf(step), pictures: [...step.pictures, ...ids] })
            }} />
          <Button $tone="quiet" aria-label={`Change step ${String(step.n)}`} onPress={onEdit}>Change</Button>
          <Button $tone="quiet" aria-label={`Delete step ${String(step.n)}`} isPending={voiding.isPending}
            onPress={() => { voiding.mutate(step) }}>Delete</Button>
        </Buttons>
      )}
      <NotSaved error={error} />
    </>
  )
}

function Edit({ log, step, wiring, boards, onDone }: { log: TeardownView; step: StepView; wiring: Wiring;
  boards: string[]; onDone: () => void }) {
  const change = useChangeStep(step.id)
  const keptAs = `step ${String(step.id)}`
  const leave = () => {
    keepUnder(keptAs, undefined)
    onDone()
  }
  return (
    <EditRecord keptAs={`fields of ${keptAs}`} record={step} change={change} newerIn={(newer) => newer.step}
      names={{ line: 'step' }} onDone={leave}>
      {({ onSubmit, error, isPending, onCancel }) => (
        <StepForm
          log={log}
          keptAs={keptAs}
          start={step}
          pictures={step.pictures}
          wiring={wiring}
          boards={boards}
          action={`Save step ${String(step.n)}`}
          onSubmit={(changed, pictures) => { onSubmit({ step: changed, pictures }) }}
          error={error}
          isPending={isPending}
          onCancel={onCancel}
        />
      )}
    </EditRecord>
  )
}

const stepOf = ({ off, fasteners, tabs, connectors, differs, note, special, needs, frees, look, minutes }: StepView) =>
  ({ off, fasteners, tabs, connectors, differs, note, special, needs, frees, look, minutes })

const List = styled.ol`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  > li { display: flex; flex-direction: column; gap: 4px; padding: ${space(1)}; border: 1px solid ${color.line};
    background: ${color.sheet}; }
`
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px ${space(1)};
  overflow-wrap: anywhere;
`
