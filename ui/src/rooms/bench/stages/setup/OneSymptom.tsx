import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type Diagnosis, fieldsOf, type Offered, useChangeDiagnosis, useVoidDiagnosis } from '../../../../api/diagnosis'
import { Button, Buttons } from '../../../../kit/Button'
import { EditRecord } from '../../../../kit/EditRecord'
import { Mark } from '../../../../kit/Mark'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { color, space } from '../../../../theme'
import { Explanations } from './Explanations'
import { type Board, FactorForm } from './FactorForm'
import { SymptomForm } from './SymptomForm'
import { TrialForm } from './TrialForm'
import { TrialTable } from './TrialTable'

/** What is done to a symptom now: nothing, it is edited, a trial (from 0) or a factor is,
  or a new trial is written down. */
type Doing = { what: '' | 'symptom' } | { what: 'trial'; at: number; on?: string[] } | { what: 'factor'; at: number }

type Props = { diagnosis: Diagnosis; offered: Offered[]; boards: Board[]; mayWrite: boolean }

/** A symptom with its trials, what they leave to explain it, and what to try next. */
export function OneSymptom({ diagnosis, offered, boards, mayWrite }: Props) {
  const [doing, setDoing] = useState<Doing>({ what: '' })
  const change = useChangeDiagnosis(diagnosis.id)
  const voiding = useVoidDiagnosis()
  const done = () => { setDoing({ what: '' }) }
  const fields = fieldsOf(diagnosis)
  const edit = { keptAs: `diagnosis ${String(diagnosis.id)}`, record: diagnosis, change, names, onDone: done,
    newerIn: (newer: { diagnosis?: Diagnosis }) => newer.diagnosis }
  const isOpen = diagnosis.state === 'open'
  if (doing.what === 'symptom')
    return <EditRecord {...edit}>{({ onSubmit, ...form }) => <SymptomForm {...form} start={fields} action="Save"
      onSubmit={(said) => { onSubmit({ ...fields, ...said }) }} />}</EditRecord>
  return (
    <Framed id={`diagnosis-${String(diagnosis.id)}`} tabIndex={-1} aria-label={diagnosis.symptom}>
      <h3>{diagnosis.symptom}</h3>
      <p><Faint>since {diagnosis.since}{isOpen ? `; ${diagnosis.judged.inShort}` : ''}</Faint></p>
      {diagnosis.state === 'found' && <p><Mark kind="done" /> It was: {diagnosis.cause}</p>}
      {diagnosis.state === 'given up' && <p><Mark kind="none" /> Given up.</p>}
      {diagnosis.note && <p>{diagnosis.note}</p>}
      <TrialTable diagnosis={diagnosis} onTrial={mayWrite ? (at) => { setDoing({ what: 'trial', at }) } : undefined}
        onFactor={mayWrite ? (at) => { setDoing({ what: 'factor', at }) } : undefined} />
      <Explanations judged={diagnosis.judged} isOpen={isOpen} count={diagnosis.trials?.length ?? 0}
        onTry={mayWrite && doing.what === '' ? (on) => { setDoing({ what: 'trial', at: diagnosis.trials?.length ?? 0, on }) }
          : undefined} />
      {doing.what === 'trial' && <EditRecord key={doing.at} {...edit}
        keptAs={`trial ${String(doing.at)} of diagnosis ${String(diagnosis.id)}`}>
        {({ onSubmit, ...form }) => <TrialForm {...form} fields={fields} at={doing.at} on={doing.on} offered={offered}
          onSubmit={(said) => { onSubmit({ ...fields, ...said }) }} />}</EditRecord>}
      {doing.what === 'factor' && <EditRecord key={doing.at} {...edit}
        keptAs={`factor ${String(doing.at)} of diagnosis ${String(diagnosis.id)}`}>
        {({ onSubmit, ...form }) => <FactorForm {...form} fields={fields} at={doing.at} boards={boards}
          onSubmit={(said) => { onSubmit({ ...fields, ...said }) }} />}</EditRecord>}
      {doing.what === '' && mayWrite && <Buttons>
        {isOpen && <Button $small onPress={() => { setDoing({ what: 'trial', at: diagnosis.trials?.length ?? 0 }) }}
          aria-label={`Write down a trial: ${diagnosis.symptom}`}>Write down a trial</Button>}
        <Button $small $tone="quiet" aria-label={`Edit, or say what it was: ${diagnosis.symptom}`}
          onPress={() => { setDoing({ what: 'symptom' }) }}>Edit, or say what it was</Button>
        <Button $small $tone="quiet" isPending={voiding.isPending} aria-label={`Delete ${diagnosis.symptom}`}
          onPress={() => { voiding.mutate(diagnosis) }}>Delete</Button>
        {diagnosis.judged.settled && <Link to={`/bench/${String(diagnosis.machineId)}/make-good?open=job`}>Put down a job</Link>}
      </Buttons>}
      <NotSaved error={voiding.error} />
    </Framed>
  )
}

const names: Partial<Record<keyof Diagnosis, string>> = { symptom: 'symptom', since: 'since', state: 'how far it is',
  cause: 'what it was', note: 'note' }

const Framed = styled.article`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  padding: ${space(1)} 0;
  border-bottom: 1px solid ${color.line};
  h3 { font-size: 16px; }
`
