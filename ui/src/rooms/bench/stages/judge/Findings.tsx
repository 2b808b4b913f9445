import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type Condition, type FindingView, type FoundOn, measurementsQuery, type SeenFinding, useNoteFinding,
  useVoidFinding } from '../../../../api/judge'
import { Button, Buttons } from '../../../../kit/Button'
import { Choice } from '../../../../kit/Field'
import { ListTable, Scroll } from '../../../../kit/ListTable'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { MarkedPicture } from '../../../../features/pictures/MarkedPicture'
import { useNamedRow } from '../../../../kit/useNamedRow'
import { spotAddress } from '../../../../kit/spot'
import { usePanel } from '../../../../kit/usePanel'
import { color } from '../../../../theme'
import { FindingForm } from './FindingForm'
import { GradeSquare } from './GradeSquare'
import { findingOf } from './seenAgain'

type Props = { machineId: number; condition: Condition; mayWrite: boolean }

/** The findings side by side over the surveys: new, worse, same, better, gone, back. */
export function Findings({ machineId, condition, mayWrite }: Props) {
  const note = useNoteFinding({ machine: machineId })
  const [adding, setAdding] = usePanel('finding')
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
            keptAs={`finding of ${String(machineId)} ${subsystem}`}
            key={subsystem}
            machineId={machineId}
            item={item}
            severities={condition.severities}
            error={note.error}
            isPending={note.isPending}
            action="Save"
            onSubmit={(seen) => { note.mutate({ subsystem, ...seen }, { onSuccess: () => { setAdding(false) } }) }}
            onCancel={() => { setAdding(false); note.reset() }}
          />
        </>
      )}
      {condition.findings.length === 0 ? <p><Faint>Nothing was found yet, in a survey or beside one, on a sheet or by measuring.</Faint></p>
        : <Compared on={{ machine: machineId }} condition={condition} mayWrite={mayWrite} />}
    </Part>
  )
}

/** The table alone, as it stands on paper, too. */
export function Compared({ on, condition, mayWrite, forPaper }: { on: FoundOn; mayWrite: boolean; forPaper?: boolean
  condition: Pick<Condition, 'compared' | 'surveys' | 'findings'> }) {
  const { compared, surveys, findings } = condition
  const named = useNamedRow('finding')
  return (
    <Scroll tabIndex={0} role="group" aria-label="Findings over the surveys">
      <ListTable>
        <thead><tr><th>Finding</th>{surveys.map(({ id, on }) => <th key={id}>{on}</th>)}<th>Today</th></tr></thead>
        <tbody>
          {compared.map((row) => {
            const finding = findings.find(({ key }) => key === row.key)
            return finding && (
              <Row key={row.key} id={`finding-${row.key}`} data-named={row.key === named || undefined} tabIndex={-1}>
                <What>{forPaper ? <strong>{row.kind}</strong>
                  : <FindingLink to={{ search: `?${new URLSearchParams({ finding: row.key }).toString()}` }}
                    replace preventScrollReset>{row.kind}</FindingLink>}, <Where on={on} finding={finding} /><br />
                  <Faint>{finding.name}{lastNote(finding) && `: ${lastNote(finding)}`}</Faint>
                    <br /><Faint>known from {finding.sources.map(({ source }) => sourceWords[source]).join(', ')}</Faint>
                    {'machine' in on && <Beside machineId={on.machine} finding={finding} forPaper={forPaper} />}</What>
                {row.states.map((state,
                  i) => <td key={surveys[i]?.id}>
                    {state && <>{state}{row.severities[i] && <><br /><Faint>{row.severities[i]}</Faint></>}</>}
                  </td>)}
                <Today>
                  {row.story.open ? <GradeSquare grade={row.story.severity} /> : 'gone'}<br />
                    <Faint>{row.story.words}</Faint>
                  {mayWrite && <Now on={on} finding={finding} />}
                </Today>
              </Row>
            )
          })}
        </tbody>
      </ListTable>
    </Scroll>
  )
}

const sourceWords = { survey: 'a survey', note: 'a note', sheet: 'the sheet', outside: 'the outside',
  measurement: 'a measurement', part: 'its part' }

const lastNote = ({ observations }: FindingView) => [...observations].reverse().find(({ note }) => note)?.note ?? ''

/** What hangs on a finding: its picture with the spot, its number on a board picture, what was measured for it. */
function Beside({ machineId, finding, forPaper = false }: { machineId: number; finding: FindingView;
  forPaper?: boolean }) {
  const [isShown, setShown] = useState(forPaper)
  const measured = (useQuery(measurementsQuery(machineId)).data ?? []).filter(({ findingId }) =>
    finding.id > 0 && findingId === finding.id)
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

function Where({ on, finding }: { on: FoundOn; finding: FindingView }) {
  if (!finding.assemblyId || finding.line === 0 || 'assembly' in on) return finding.where || 'no place'
  const stage = finding.sources.some(({ source }) => source === 'outside') ? 'look-over' : 'take-stock'
  return <Link to={spotAddress(on.machine, { assembly: finding.assemblyId, line: finding.line }, stage)}>
    {finding.where}</Link>
}

/** Says how a finding is now, outside of a survey: mended, or there again. */
function Now({ on, finding }: { on: FoundOn; finding: FindingView }) {
  const note = useNoteFinding(on)
  const voiding = useVoidFinding()
  const say = (seen: Partial<SeenFinding>) => { note.mutate({ ...findingOf(finding),
    severity: finding.story.severity, ...seen }) }
  const error = note.error ?? voiding.error
  return (
    <>
      <Buttons>
        {finding.story.open
          ? <Button $tone="quiet" aria-label={`Resolved: ${finding.kind}, ${finding.where}`} isPending={note.isPending}
            onPress={() => { say({ gone: true }) }}>Resolved</Button>
          : <Button $tone="quiet" aria-label={`Recurred: ${finding.kind}, ${finding.where}`} isPending={note.isPending}
            onPress={() => { say({ gone: false }) }}>Recurred</Button>}
        {finding.id > 0 && <Button $tone="quiet" aria-label={`Delete ${finding.kind}, ${finding.where}`} isPending={voiding.isPending}
          onPress={() => { voiding.mutate(finding) }}>Delete</Button>}
      </Buttons>
      <NotSaved error={error} />
    </>
  )
}

/** The finding that the address names. */
const Row = styled.tr`
  scroll-margin-top: 96px;
  &[data-named] { outline: 2px solid ${color.slate}; outline-offset: -2px; }
`
const FindingLink = styled(Link)`
  font-weight: 600;
`
const What = styled.td`
  min-width: 200px;
`
const Today = styled.td`
  min-width: 200px;
`
