import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'

import { messageOf, ProblemError } from '../../api/problem'
import { useAccount } from '../../api/session'
import { identificationQuery, type IdentificationView, useWeigh, type Weighed } from '../../api/unknowns'
import { Button, Buttons } from '../../kit/Button'
import { Choice, Field, FieldGrid } from '../../kit/Field'
import { Figure, Scroll } from '../../kit/ListTable'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { color, space } from '../../theme'
import { Census, type Proposal } from './Census'
import { EvidenceTable } from './EvidenceTable'
import { weightOf, weightWord } from './words'

type Evidence = IdentificationView['evidence'][number]

const weights = [3, 2, 1, 0, -1, -2, -3]
const seenWords: Record<Evidence['presence'], string> = { found: 'found', absent: 'not there', open: 'not yet' }
const next = (ids: number[]) => Math.max(0, ...ids) + 1

/** One board: its explanations ranked, the table of evidence, what to look for next, and the decision. */
export function Identification({ assemblyId }: { assemblyId: number }) {
  const identification = useQuery(identificationQuery(assemblyId))
  if (identification.error) return <Notice tone="stop" word="Not read.">{messageOf(identification.error)}</Notice>
  return identification.data ? <Shown identification={identification.data} /> : null
}

function Shown({ identification }: { identification: IdentificationView }) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const weigh = useWeigh(identification.assemblyId)
  const [adding, setAdding] = useState<'explanation' | 'evidence' | 'decision'>()
  const { hypotheses, evidence, weighing, decision } = identification
  const put = (change: (now: Weighed) => Partial<Weighed>, onSuccess?: () => void) => {
    weigh.mutate(change, { onSuccess })
  }
  const done = () => { setAdding(undefined) }
  // What was accepted before and is otherwise now takes the place of that, with the weights that somebody gave it.
  const accept = ({ key, text, howTo, presence, weights }: Proposal) => {
    put((now) => {
      const before = now.evidence.find(({ follows }) => follows === key)
      const one: Evidence = { id: before?.id ?? next(now.evidence.map(({ id }) => id)), text, howTo, presence,
        follows: key, weights: before?.weights ?? weights }
      return { evidence: [...now.evidence.filter(({ id }) => id !== one.id), one] }
    })
  }
  const chosen = hypotheses.find(({ id }) => id === decision?.hypothesisId)
  const stale = weigh.error instanceof ProblemError && weigh.error.problem?.newer
  return (
    <Frame aria-label={`What ${identification.assembly} could be`}>
      <h3>{identification.assembly}</h3>
      {chosen && decision ? (
        <p><strong>{chosen.text}</strong> ({decision.sure}): {decision.reason}</p>
      ) : (
        <p>{weighing.why}</p>
      )}
      {weigh.error && (
        <Notice tone="stop" word="Not saved.">
          {messageOf(weigh.error)} {stale && <Button $small onPress={() => { weigh.reset() }}>
            Go on with what it is now
          </Button>}
        </Notice>
      )}
      {weighing.ranking.length > 0 && (
        <ol>
          {weighing.ranking.map((one) => (
            <li key={one.id}>
              <strong>{one.text}</strong> <Share aria-hidden="true">
                <span style={{ width: `${String(Math.round(one.share * 100))}%` }} />
              </Share> <Faint>{Math.round(one.share * 100)} of 100, a rule of thumb</Faint>
              {one.for.length > 0 && <p>For it: {one.for.map(({ text }) => text).join('; ')}.</p>}
              {one.against.length > 0 && <p>Against it: {one.against.map(({ text }) => text).join('; ')}.</p>}
            </li>
          ))}
        </ol>
      )}
      {weighing.next.length > 0 && !decision && (
        <p><strong>Look for next:</strong> {weighing.next[0]?.text}
          {weighing.next[0]?.howTo && ` (${weighing.next[0].howTo})`}: it {weighing.next[0]?.why}.</p>
      )}
      <Census identification={identification} mayWrite={mayWrite} onAccept={accept}
        onDrop={(key) => { put((now) => ({ dropped: [...(now.dropped ?? []), key] })) }} />
      {evidence.length > 0 && hypotheses.length > 0 && (
        <Scroll>
          <EvidenceTable>
            <thead><tr><th>Evidence</th><th>Looked for</th>{hypotheses.map(({ id, text }) =>
              <Figure as="th" key={id} $text>{text}</Figure>)}</tr></thead>
            <tbody>
              {evidence.map((one) => <Row key={one.id} one={one} hypotheses={hypotheses} mayWrite={mayWrite}
                onChange={(changed) => {
                  put((now) => ({ evidence: now.evidence.map((other) =>
                    (other.id === one.id ? changed(other) : other)) }))
                }} />)}
            </tbody>
          </EvidenceTable>
        </Scroll>
      )}
      {evidence.length > 0 && hypotheses.length > 0 && <Faint>+3 speaks strongly for an explanation, -3 strongly
        against it, 0 says nothing.</Faint>}
      {mayWrite && (
        <Buttons>
          <Button $small onPress={() => { setAdding('explanation') }}>Add an explanation</Button>
          <Button $small isDisabled={hypotheses.length === 0} onPress={() => { setAdding('evidence') }}>
            Add evidence
          </Button>
          <Button $small isDisabled={hypotheses.length === 0} onPress={() => { setAdding('decision') }}>
            {decision ? 'Decide anew' : 'Decide'}
          </Button>
          {decision && <Button $small onPress={() => { put(() => ({ decision: undefined })) }}>Open it again</Button>}
        </Buttons>
      )}
      {adding === 'explanation' && (
        <RecordForm keptAs={`explanation of board ${String(identification.assemblyId)}`}
          error={null} isPending={weigh.isPending} action="Add"
          onSubmit={(form) => {
            put((now) => ({ hypotheses: [...now.hypotheses, { id: next(now.hypotheses.map(({ id }) => id)),
              text: textOf(form, 'text') }] }), done)
          }} onCancel={done}>
          <Field label="It could be" name="text" isRequired autoFocus placeholder="a disk controller" />
        </RecordForm>
      )}
      {adding === 'evidence' && (
        <RecordForm
          keptAs={`evidence of board ${String(identification.assemblyId)}`}
          error={null}
          isPending={weigh.isPending}
          action="Add"
          onSubmit={(form) => {
            const one = { text: textOf(form, 'text'), howTo: textOf(form, 'howTo'),
              presence: (textOf(form, 'seen') || 'found') as Evidence['presence'], weights: [] }
            put((now) => ({ evidence: [...now.evidence, { id: next(now.evidence.map(({ id }) => id)), ...one }] }),
              done)
          }}
          onCancel={done}
        >
          <FieldGrid>
            <Field label="What one sees, or would see" name="text" isRequired autoFocus
              placeholder="a connector of 34 pins" />
            <Field label="How one looks for it" name="howTo" placeholder="read the crystal" />
          </FieldGrid>
        </RecordForm>
      )}
      {adding === 'decision' && <Deciding identification={identification} isPending={weigh.isPending}
        onDecide={(made) => { put(() => ({ decision: made }), done) }} onCancel={done} />}
    </Frame>
  )
}

function Row({ one, hypotheses, mayWrite, onChange }: { one: Evidence; hypotheses: IdentificationView['hypotheses'];
  mayWrite: boolean; onChange: (changed: (now: Evidence) => Evidence) => void }) {
  return (
    <tr>
      <td>{one.text}{one.howTo && <><br /><Faint>{one.howTo}</Faint></>}
        {one.follows && <><br /><Faint>proposed by its chips, and accepted</Faint></>}</td>
      <td>
        {mayWrite ? (
          <Choice
            label={<span className="only-read">Was it looked for: {one.text}</span>}
            value={one.presence}
            options={Object.entries(seenWords).map(([value, text]) => ({ value: value as Evidence['presence'], text }))}
            onChange={(presence) => { onChange((now) => ({ ...now, presence })) }}
          />
        ) : seenWords[one.presence]}
      </td>
      {hypotheses.map(({ id, text }) => (
        <td key={id}>
          {mayWrite ? (
            <Choice
              label={<span className="only-read">What {one.text} says of {text}</span>}
              value={String(weightOf(one.weights, id))}
              options={weights.map((weight) => ({ value: String(weight), text: weightWord(weight) }))}
              onChange={(weight) => {
                onChange((now) => ({ ...now, weights: [...now.weights.filter(({ hypothesisId }) => hypothesisId !== id),
                  { hypothesisId: id, weight: Number(weight) }] }))
              }}
            />
          ) : weightWord(weightOf(one.weights, id))}
        </td>
      ))}
    </tr>
  )
}

function Deciding({ identification, isPending, onDecide, onCancel }: { identification: IdentificationView;
  isPending: boolean;
  onDecide: (decision: NonNullable<IdentificationView['decision']>) => void; onCancel: () => void }) {
  const [id, setId] = useState(String(identification.weighing.ranking[0]?.id ?? ''))
  const [sure, setSure] = useState<'certain' | 'likely' | 'a guess'>('likely')
  return (
    <RecordForm keptAs={`decision of board ${String(identification.assemblyId)}`}
      error={null} isPending={isPending} action="Decide it"
      onSubmit={(form) => { onDecide({ hypothesisId: Number(id), sure, reason: textOf(form, 'reason') }) }}
        onCancel={onCancel}>
      <FieldGrid>
        <Choice label="It is" value={id}
          options={identification.hypotheses.map((one) => ({ value: String(one.id), text: one.text }))}
            onChange={setId} />
        <Choice label="How sure that is" value={sure}
          options={(['certain', 'likely', 'a guess'] as const).map((value) => ({ value, text: value }))}
            onChange={setSure} />
        <Field label="What decided it" name="reason" isRequired autoFocus />
      </FieldGrid>
    </RecordForm>
  )
}

const Frame = styled.section`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  padding: ${space(1)};
  border: 1px solid ${color.line};
  background: ${color.sheet};
  h3 { font-size: 17px; }
  ol { padding-left: ${space(3)}; list-style: decimal; }
`
const Share = styled.span`
  display: inline-block;
  width: 96px;
  height: 8px;
  border: 1px solid ${color.edge};
  span { display: block; height: 100%; background: ${color.slate}; }
`
