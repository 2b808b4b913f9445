import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type Condition, measurementsQuery, type SeenFinding, type FindingView, useNoteFinding,
  useVoidFinding } from '../../../../api/judge'
import { messageOf } from '../../../../api/problem'
import { Button, Buttons } from '../../../../kit/Button'
import { Choice } from '../../../../kit/Field'
import { ListTable, Scroll } from '../../../../kit/ListTable'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { MarkedPicture } from '../../../../pictures/MarkedPicture'
import { FindingForm } from './FindingForm'
import { GradeSquare } from './GradeSquare'

type Props = { machineId: number; condition: Condition; mayWrite: boolean }

/** The findings side by side over the surveys: new, worse, same, better, gone, back. */
export function Findings({ machineId, condition, mayWrite }: Props) {
  const note = useNoteFinding(machineId)
  const [adding, setAdding] = useState(false)
  const [subsystem, setSubsystem] = useState(condition.guide[0]?.subsystem ?? '')
  const item = condition.guide.find((one) => one.subsystem === subsystem)
  const open = condition.findings.filter(({ story }) => story.open).length
  return (
    <Part
      title="Findings"
      faint={condition.findings.length > 0 ? `${String(open)} open, ${String(condition.findings.length - open)} gone`
        : undefined}
      action={mayWrite && !adding && <Button $small onPress={() => { setAdding(true) }}>Note a finding</Button>}
    >
      {adding && item && (
        <>
          <Choice label="Subsystem" value={subsystem}
            options={condition.guide.map((one) => ({ value: one.subsystem, text: one.name }))}
              onChange={setSubsystem} />
          <FindingForm
            key={subsystem}
            machineId={machineId}
            item={item}
            severities={condition.severities}
            error={note.error}
            isPending={note.isPending}
            action="Note it"
            onSubmit={(seen) => { note.mutate({ subsystem, ...seen }, { onSuccess: () => { setAdding(false) } }) }}
            onCancel={() => { setAdding(false); note.reset() }}
          />
        </>
      )}
      {condition.findings.length === 0 ? <p><Faint>Nothing was found yet, in a survey or beside one.</Faint></p>
        : <Compared machineId={machineId} condition={condition} mayWrite={mayWrite} />}
    </Part>
  )
}

/** The table alone, as it stands on paper, too. */
export function Compared({ machineId, condition, mayWrite, forPaper }: Props & { forPaper?: boolean }) {
  const { compared, surveys, findings } = condition
  return (
    <Scroll tabIndex={0} role="group" aria-label="Findings over the surveys">
      <ListTable>
        <thead><tr><th>Finding</th>{surveys.map(({ id, on }) => <th key={id}>{on}</th>)}<th>Today</th></tr></thead>
        <tbody>
          {compared.map((row) => {
            const finding = findings.find(({ id }) => id === row.findingId)
            return finding && (
              <tr key={row.findingId}>
                <td><strong>{row.kind}</strong>, <Where machineId={machineId} finding={finding} /><br />
                  <Faint>{finding.name}{lastNote(finding) && `: ${lastNote(finding)}`}</Faint>
                    <Beside machineId={machineId} finding={finding} forPaper={forPaper} /></td>
                {row.states.map((state,
                  i) => <td key={surveys[i]?.id}>
                    {state && <>{state}{row.severities[i] && <><br /><Faint>{row.severities[i]}</Faint></>}</>}
                  </td>)}
                <Today>
                  {row.story.open ? <GradeSquare grade={row.story.severity} /> : 'gone'}<br />
                    <Faint>{row.story.words}</Faint>
                  {mayWrite && <Now machineId={machineId} finding={finding} />}
                </Today>
              </tr>
            )
          })}
        </tbody>
      </ListTable>
    </Scroll>
  )
}

const lastNote = ({ observations }: FindingView) => [...observations].reverse().find(({ note }) => note)?.note ?? ''

/** What hangs on a finding: its picture with the spot, its number on a board picture, what was measured for it. */
function Beside({ machineId, finding, forPaper = false }: { machineId: number; finding: FindingView;
  forPaper?: boolean }) {
  const [isShown, setShown] = useState(forPaper)
  const measured = (useQuery(measurementsQuery(machineId)).data ?? []).filter(({ findingId }) =>
    findingId === finding.id)
  const { attachmentId, callout, region } = finding
  return (
    <>
      {measured.map(({ id, point, on, judged }) =>
        <div key={id}><Faint>{on} measured {point} {judged.inWords}: {judged.verdict}</Faint></div>)}
      {callout && <div>
        <Link to={`/bench/${String(machineId)}/board-picture/${String(callout.attachmentId)}`}>number {callout.n} on
          the board picture</Link>
      </div>}
      {attachmentId && !forPaper && <div>
        <Button $tone="quiet" aria-label={`Picture of ${finding.kind}, ${finding.where}`}
          onPress={() => { setShown(!isShown) }}>{isShown ? 'Close the picture' : 'Picture'}</Button>
      </div>}
      {attachmentId && isShown && <MarkedPicture id={attachmentId} alt={`${finding.kind}, ${finding.where}`}
        region={region} />}
    </>
  )
}

function Where({ machineId, finding }: { machineId: number; finding: FindingView }) {
  if (!finding.assemblyId || finding.line === 0) return finding.where || 'no place'
  return <Link to={`/bench/${String(machineId)}/take-stock`}
    state={{ spot: { assembly: finding.assemblyId, line: finding.line } }}>{finding.where}</Link>
}

/** Says how a finding is now, outside of a survey: mended, or there again. */
function Now({ machineId, finding }: { machineId: number; finding: FindingView }) {
  const note = useNoteFinding(machineId)
  const voiding = useVoidFinding()
  const say = (seen: Partial<SeenFinding>) => { note.mutate({ findingId: finding.id, severity: finding.story.severity,
    ...seen }) }
  const error = note.error ?? voiding.error
  return (
    <>
      <Buttons>
        {finding.story.open
          ? <Button $tone="quiet" aria-label={`Gone: ${finding.kind}, ${finding.where}`} isPending={note.isPending}
            onPress={() => { say({ gone: true }) }}>Gone</Button>
          : <Button $tone="quiet" aria-label={`Back: ${finding.kind}, ${finding.where}`} isPending={note.isPending}
            onPress={() => { say({ gone: false }) }}>It is back</Button>}
        <Button $tone="quiet" aria-label={`Strike out ${finding.kind}, ${finding.where}`} isPending={voiding.isPending}
          onPress={() => { voiding.mutate(finding) }}>Strike out</Button>
      </Buttons>
      {error && <Notice tone="stop" word="Not kept.">{messageOf(error)}</Notice>}
    </>
  )
}

const Today = styled.td`
  min-width: 200px;
`
