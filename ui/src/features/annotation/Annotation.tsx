import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import styled from 'styled-components'

import { assembliesQuery } from '../../api/assemblies'
import { attachmentQuery } from '../../api/attachments'
import { type AnnotationInput, drawingOf, annotationQuery, type AnnotationView,
  useAnnotate } from '../../api/annotations'
import { messageOf, ProblemError } from '../../api/problem'
import { useAccount } from '../../api/session'
import { Button, Buttons } from '../../kit/Button'
import { Choice } from '../../kit/Field'
import { Notice } from '../../kit/Notice'
import { Page, Title } from '../../kit/Page'
import { narrow, space } from '../../theme'
import { Blocks } from './Blocks'
import { Canvas } from './Canvas'
import { Legend } from './Legend'

/** A picture of a board with numbers on it that stand for lines of its sheet; it prints with its legend. */
export default function Annotation() {
  const machineId = Number(useParams().machineId)
  const attachmentId = Number(useParams().attachmentId)
  const annotation = useQuery(annotationQuery(attachmentId))
  const picture = useQuery(attachmentQuery(attachmentId))
  const error = annotation.error ?? picture.error
  if (error)
    return <Page><Title>Board picture</Title><Notice tone="stop" word="Not read.">{messageOf(error)}</Notice></Page>
  if (!annotation.data || !picture.data) return null
  return <Shown machineId={machineId} told={annotation.data} name={picture.data.caption || picture.data.fileName} />
}

function Shown({ machineId, told, name }: { machineId: number; told: AnnotationView; name: string }) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const assemblies = useQuery(assembliesQuery(machineId))
  const [board, setBoard] = useState(String(told.assemblyId || ''))
  const [chosen, setChosen] = useState(useSearchParams()[0].get('part') ?? undefined)
  const [toPlace, setToPlace] = useState<string>()
  const [members, setMembers] = useState<string[]>()
  const draw = useAnnotate(told.attachmentId)
  const assemblyId = told.assemblyId || Number(board)
  const put = (change: Partial<AnnotationInput['annotation']> & { rows?: AnnotationInput['rows'] },
    onSuccess?: () => void) => {
    const { rows, ...annotation } = change
    draw.mutate({ version: told.version, assemblyId, annotation: { ...told.annotation, ...annotation }, rows },
      { onSuccess })
  }
  const waiting = told.legend.unplaced.flatMap(({ designators }) => designators)
  const nextToPlace = toPlace !== undefined && waiting.includes(toPlace) ? toPlace : waiting[0]
  const stale = draw.error instanceof ProblemError && draw.error.problem?.newer
  return (
    <Page>
      <Title><Link to={`/bench/${String(machineId)}/identify`}>Identify</Link> / {name}
        {told.assembly && told.assembly !== name && `: ${told.assembly}`}</Title>
      {draw.error && (
        <Notice tone="stop"
          word="Not saved.">{messageOf(draw.error)} {stale && <Button $small onPress={() => { draw.reset() }}>
            Go on with what it is now
          </Button>}</Notice>
      )}
      {!told.assemblyId && (
        <Choice
          label="Board that the picture shows"
          value={board}
          options={[{ value: '', text: 'choose one' },
            ...(assemblies.data ?? []).map(({ id, title }) => ({ value: String(id), text: title }))]}
          onChange={(id) => {
            setBoard(id)
            if (id) draw.mutate({ version: told.version, assemblyId: Number(id), annotation: told.annotation })
          }}
        />
      )}
      <Beside>
        <div>
          <Canvas
            told={told}
            mayWrite={mayWrite && assemblyId > 0}
            chosen={chosen}
            members={members}
            toPlace={nextToPlace}
            onChoose={setChosen}
            onMember={(designator) => { setMembers(members?.includes(designator) ? members.filter((one) =>
              one !== designator) : [...(members ?? []), designator]) }}
            onPlace={(x, y) => { if (nextToPlace)
              put({ rows: [{ designators: [nextToPlace], x1: x, y1: y, x2: x, y2: y }] }) }}
            onRow={(row) => {
              const line = told.legend.unplaced.find(({ designators }) =>
                nextToPlace !== undefined && designators.includes(nextToPlace))
              if (line) put({ rows: [{ designators: line.designators, ...row }] })
            }}
            onMove={(designator, x,
              y) => { put({ callouts: told.annotation.callouts.map((one) => (one.designator === designator
                ? { designator, x,
                y } : one)) }) }}
            onRemove={(designator) => {
              put({
                callouts: told.annotation.callouts.filter((one) => one.designator !== designator),
                blocks: told.annotation.blocks.map((block) => ({ ...block, members: block.members.filter((one) =>
                  one !== designator) })).filter((block) => block.members.length > 0),
              })
            }}
          />
          {told.assemblyId > 0 && (
            <Buttons className="no-print">
              <a href={drawingOf(told.attachmentId, true)} download>as SVG, with the picture</a>
              <a href={drawingOf(told.attachmentId, false)} download>as SVG, naming it</a>
              <Button $small onPress={() => { window.print() }}>Print with the legend</Button>
            </Buttons>
          )}
        </div>
        <div>
          <Legend machineId={machineId} told={told} chosen={chosen} toPlace={mayWrite ? nextToPlace : undefined}
            onChoose={setChosen} onToPlace={setToPlace} />
          <Blocks told={told} mayWrite={mayWrite && told.annotation.callouts.length > 0} members={members}
            onMembers={setMembers} isPending={draw.isPending} onBlocks={(blocks, done) => { put({ blocks }, done) }} />
        </div>
      </Beside>
    </Page>
  )
}

const Beside = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(260px, 2fr);
  gap: ${space(2)};
  ${narrow} { grid-template-columns: minmax(0, 1fr); }
`
