import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'

import { assembliesQuery } from '../../../../api/assemblies'
import { viewOf } from '../../../../api/attachments'
import { type Measurement, measurementsQuery, type FindingView, useMeasure,
  useVoidMeasurement } from '../../../../api/judge'
import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { Button, Buttons } from '../../../../kit/Button'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { Scroll, StackedTable, Whole } from '../../../../kit/ListTable'
import { Mark, type MarkKind } from '../../../../kit/Mark'
import { Notice } from '../../../../kit/Notice'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { useKept } from '../../../../data/useDrafts'
import { PhotoButton } from '../../../../features/pictures/PhotoButton'
import { color, font } from '../../../../theme'
import { MeterSeries } from './MeterSeries'

const marks: Record<Measurement['judged']['verdict'], MarkKind> = { pass: 'done', marginal: 'attention',
  fail: 'problem', noted: 'part' }

/** What was measured: typed as one says it, or read by the meter. */
export function Measurements({ machine, findings, mayWrite }: { machine: Machine; findings: FindingView[];
  mayWrite: boolean }) {
  const all = useQuery(measurementsQuery(machine.id))
  const measure = useMeasure(machine.id)
  const [line, setLine, forget] = useKept(`measurement of ${String(machine.id)}`, '')
  const [wave, setWave] = useState<number>()
  const [finding, setFinding] = useState('')
  const [board, setBoard] = useState('')
  const boards = useQuery(assembliesQuery(machine.id)).data ?? []
  const open = findings.filter(({ id, story }) => id > 0 && story.open)
  const [running, setRunning] = useState<number>()
  const measured = all.data ?? []
  return (
    <Part title="Measurements" faint={measured.length > 0 ? `${String(measured.length)}, the newest first` : undefined}>
      {mayWrite && (
        <RecordForm
          keptAs={null}
          error={measure.error}
          isPending={measure.isPending}
          action="Save"
          leave="Clear"
          onSubmit={(form) => {
            measure.mutate({ line, instrument: textOf(form, 'instrument'), note: textOf(form, 'note'),
              attachmentId: wave, findingId: Number(finding) || undefined, assemblyId: Number(board) || undefined },
                { onSuccess: () => { forget(); setWave(undefined); setFinding('') } })
          }}
          onCancel={() => { forget(); measure.reset() }}
        >
          <Field label="What you measured" name="line" value={line} onChange={(text) => { setLine(() => text) }} mono
            isRequired placeholder="BT1 2.1 V"
              hint="+5 4.93 · BT1 2.1 V · C12 41 uF = 47 uF +/- 20 % · C12 ESR 0.8 ohm < 1 · drive guide 31.4 mm / 30.9 mm > 0.2 (part / opening > play)" />
          <FieldGrid>
            <Field label="With" name="instrument" placeholder="bench meter 2" />
            <Field label="Note" name="note" />
            {boards.length > 1 && <Choice label="On" value={board}
              options={[{ value: '', text: 'the board that has the part' },
                ...boards.map(({ id, title }) => ({ value: String(id), text: title }))]} onChange={setBoard} />}
            {open.length > 0 && <Choice label="For the finding" value={finding}
              options={[{ value: '', text: 'none' },
                ...open.map(({ id, kind, where }) => ({ value: String(id), text: `${kind}, ${where}` }))]}
                  onChange={setFinding} />}
          </FieldGrid>
          <Buttons>
            <PhotoButton owner={{ machine: machine.id }} label="Picture of the waveform"
              onKept={([id]) => { setWave(id) }} />
            {wave && <span role="status">One goes with it</span>}
          </Buttons>
        </RecordForm>
      )}
      {mayWrite && <MeterSeries machine={machine} measured={measured} running={running} onRunning={setRunning} />}
      {all.error && <Notice tone="stop" word="Not listed.">{messageOf(all.error)}</Notice>}
      {measured.length > 0 && (
        <Scroll>
          <StackedTable>
            <thead><tr><th>Point</th><th>Value and verdict</th><th>Why</th><th>When, with</th>
              <th><span className="only-read">Change</span></th></tr></thead>
            <tbody>{measured.map((one) =>
              <Row key={one.id} one={one} mayWrite={mayWrite} onGoOn={() => { setRunning(one.id) }} />)}</tbody>
          </StackedTable>
        </Scroll>
      )}
    </Part>
  )
}

function Row({ one, mayWrite, onGoOn }: { one: Measurement; mayWrite: boolean; onGoOn: () => void }) {
  const voiding = useVoidMeasurement()
  return (
    <tr>
      <Whole><strong>{one.point}</strong>{one.assembly && <><br /><Faint>{one.assembly}</Faint></>}</Whole>
      <Whole><Value>{one.judged.inWords}</Value><br />
        <Mark kind={marks[one.judged.verdict]} /> {one.judged.verdict}</Whole>
      <Why>{one.judged.why.join('; ')}{one.trouble && <Notice tone="attention" word="Stopped.">{one.trouble}</Notice>}
        {one.note && <><br /><Faint>{one.note}</Faint></>}</Why>
      <Whole>{one.on}<br /><Faint>{[one.instrument, one.by].filter(Boolean).join(', ')}</Faint>
        {one.attachmentId && <><br /><a href={viewOf(one.attachmentId, 'screen')} target="_blank" rel="noreferrer">
          waveform
        </a></>}</Whole>
      <td>
        {mayWrite && (
          <Buttons>
            <Button $tone="quiet" aria-label={`More readings of ${one.point}`} onPress={onGoOn}>More readings</Button>
            <Button $tone="quiet" aria-label={`Delete ${one.point} ${one.judged.inWords}`}
              isPending={voiding.isPending} onPress={() => { voiding.mutate(one) }}>Delete</Button>
          </Buttons>
        )}
        <NotSaved error={voiding.error} />
      </td>
    </tr>
  )
}

const Value = styled.span`
  font: 600 15px ${font.mono};
`
const Why = styled.td`
  min-width: 220px;
  color: ${color.faint};
  font-size: 15px;
`
