import { memo, Suspense, useEffect, useMemo, useRef, useState } from 'react'
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components'
import { useNavigate, useParams } from 'react-router'
import styled from 'styled-components'

import { partOnPicture } from '../../../../features/annotation/partOnPicture'
import type { FittedAssembly, Revision } from '../../../../api/assemblies'
import type { ReckonedBoard } from '../../../../api/reckoning'
import { messageOf } from '../../../../api/problem'
import { Button } from '../../../../kit/Button'
import { PartHead, partOf, PartSection } from '../../../../kit/Part'
import { useInSight } from '../../../../kit/useInSight'
import { usePanel } from '../../../../kit/usePanel'
import type { Reckoning } from '../../../../features/reckoning/useReckoning'
import { Recognised } from '../../../../features/recognised/Recognised'
import { color, font, radius, space, target } from '../../../../theme'
import { BoardDetails } from './BoardDetails'
import { DraftState } from './DraftState'
import { sheetEditor } from './editor/sheetEditor'
import { MergeSheet } from './MergeSheet'
import { MoveForm } from './moves/MoveForm'
import { NameUnknown } from './NameUnknown'
import { SheetHistory } from './SheetHistory'
import { SheetTable } from './SheetTable'
import { type SheetDraft, useDraftPart, useSheetDraft } from './useSheetDraft'

const SheetEditor = sheetEditor.Page

type Props = {
  assembly: FittedAssembly
  /** What was reckoned of it, and of which text. */
  reckonedBoard: ReckonedBoard | undefined
  reckonedText: string
  setDraft: Reckoning['setDraft']
  onShow: Reckoning['onShow']
  mayWrite: boolean
  startHere: boolean
  /** A text to go on with at the end of the sheet. */
  insert?: { text: string }
}

/** One board: what it is, and its sheet as text or as a table. Both edit the same draft. */
export const Board = memo(function Board({ assembly, reckonedBoard, reckonedText, setDraft, onShow, mayWrite, startHere,
  insert }: Props) {
  const draft = useSheetDraft(assembly)
  const [view, setView] = useState<'text' | 'table'>('text')
  const [editing, setEditing] = usePanel(`details ${String(assembly.id)}`)
  const [telling, setTelling] = usePanel(`history ${String(assembly.id)}`, 'all')
  const [moving, setMoving] = usePanel(`move ${String(assembly.id)}`)
  const [naming, setNaming] = useState<{ number: string; line: number }>()
  const [spot, setSpot] = useState<{ line: number }>()
  const section = useRef<HTMLElement>(null)
  const machineId = Number(useParams().machineId) || 0
  const navigate = useNavigate()
  const [noPicture, setNoPicture] = useState('')
  const isInSight = useInSight(section)
  const [wanted, setWanted] = useState(false)
  const hasEditor = isInSight || startHere || wanted || spot !== undefined
  const reckoned = useMemo(() => reckonedBoard && { ...reckonedBoard, text: reckonedText },
    [reckonedBoard, reckonedText])
  const isExterior = assembly.kind === 'exterior' // it stays with its machine, and its lines are no parts

  useEffect(() => {
    const tell = () => {
      const { text } = draft.state
      setDraft(assembly.id, text === assembly.body ? undefined : text)
    }
    tell()
    return draft.subscribe(tell)
  }, [setDraft, assembly, draft])
  useEffect(
    () => onShow(assembly.id, (line) => {
      setSpot({ line })
      section.current?.scrollIntoView({ block: 'nearest' })
    }),
    [onShow, assembly.id],
  )

  // An editor is loaded when its board comes into sight; until then its text stands there, and leads into it.
  const unread = (
    <Waiting tabIndex={0} aria-label={`Sheet of ${assembly.title}, loading`} onFocus={() => { setWanted(true) }}>
      {draft.state.text}
    </Waiting>
  )

  return (
    <PartSection ref={section} {...partOf(assembly.title)}>
      <PartHead>
        <h2>{assembly.title}</h2>
        <Facts>{facts(assembly)}</Facts>
        {mayWrite && !isExterior && <Button $tone="quiet" onPress={() => { setEditing(true) }}>Edit details</Button>}
        {mayWrite && !isExterior && <Button $tone="quiet" aria-label={`Move ${assembly.title}`} aria-expanded={moving}
          onPress={() => { setMoving(!moving) }}>Move</Button>}
        <Button $tone="quiet" aria-label={`History of ${assembly.title}`} aria-expanded={telling}
          onPress={() => { setTelling(!telling) }}>History</Button>
        <Tools>
        {mayWrite && <DraftState draft={draft} title={assembly.title} />}
        {!isExterior && <Views
          aria-label={`View of ${assembly.title}`}
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[view]}
          onSelectionChange={(keys) => { setView(keys.has('table') ? 'table' : 'text') }}
        >
          <View id="text">Text</View>
          <View id="table">Table</View>
        </Views>}
        </Tools>
      </PartHead>
      {!isExterior && <Recognised assembly={assembly} mayWrite={mayWrite} />}
      {editing && <BoardDetails assembly={assembly} onDone={() => { setEditing(false) }} />}
      {moving && <MoveForm assembly={assembly} onDone={() => { setMoving(false) }} />}
      {telling && (
        <SheetHistory
          key={assembly.revision}
          assembly={assembly}
          mayWrite={mayWrite}
          onBringBack={(body) => { draft.type(body) }}
          onClose={() => { setTelling(false) }}
        />
      )}
      {noPicture && <p role="status">{noPicture}</p>}
      {naming && (
        <NameUnknown
          number={naming.number}
          onDone={() => {
            setNaming(undefined)
            setSpot({ line: naming.line }) // back to where it was opened from
          }}
        />
      )}
      <MeetNewer draft={draft} />
      {view === 'text' ? (
        <Suspense fallback={unread}>
          {!hasEditor ? unread : <SheetEditor
            title={assembly.title}
            draft={draft}
            reckoned={reckoned}
            spot={spot}
            readOnly={!mayWrite}
            autoFocus={startHere || wanted}
            isExterior={isExterior}
            insert={insert}
            onPicture={(line) => {
              if (!machineId) return false
              setNoPicture('')
              // Numbers on pictures are of the sheet as it is kept.
              const kept = assembly.body.split('\n').indexOf(line) + 1
              void partOnPicture(machineId, assembly.id, kept).then((to) => {
                if (to) void navigate(to)
                else setNoPicture('No picture of this board has a number for a part of this line, as it was saved.')
              }, (error: unknown) => { setNoPicture(messageOf(error)) })
              return true
            }}
            onName={(line) => {
              const unknown = reckoned?.lines.find((state) => state.line === line && state.state === 'unknown')
              if (!mayWrite || isExterior || !unknown) return false
              setNaming({ number: unknown.nameable, line })
              return true
            }}
          />}
        </Suspense>
      ) : (
        <SheetTable title={assembly.title} draft={draft} reckoned={reckoned} spot={spot} readOnly={!mayWrite} />
      )}
    </PartSection>
  )
})

/** What somebody else saved meanwhile, and what comes of both. */
function MeetNewer({ draft }: { draft: SheetDraft }) {
  const newer = useDraftPart(draft, (state) => state.newer)
  return newer && <Merging draft={draft} theirs={newer} />
}

function Merging({ draft, theirs }: { draft: SheetDraft; theirs: Revision }) {
  const text = useDraftPart(draft, (state) => state.text)
  return (
    <MergeSheet
      assemblyId={draft.assembly.id}
      base={draft.state.base}
      mine={text}
      theirs={theirs}
      onSave={(merged) => void draft.saveMerged(merged)}
      onTakeTheirs={draft.takeTheirs}
    />
  )
}

function facts({ kind, part, rev, serial, slot, fit }: FittedAssembly): string {
  return [
    kind !== 'board' && kind !== 'exterior' && kind,
    part && `part ${part}`,
    rev && `rev ${rev}`,
    serial && `serial ${serial}`,
    slot && `slot ${slot}`,
    fit && fit !== 'unknown' && `fitted: ${fit}`,
  ].filter(Boolean).join(' · ')
}

const Facts = styled.span`
  color: ${color.faint};
  font: 13px ${font.mono};
  padding-left: ${space(1)};
`
const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px ${space(2)};
  margin-left: auto;
`
const Views = styled(ToggleButtonGroup)`
  display: flex;
`
const View = styled(ToggleButton)`
  min-height: ${target.small};
  padding: 0 12px;
  border: 1px solid ${color.edge};
  background: transparent;
  cursor: pointer;
  &:first-child { border-radius: ${radius} 0 0 ${radius}; border-right: none; }
  &:last-child { border-radius: 0 ${radius} ${radius} 0; }
  &[data-selected] { background: ${color.slateGround}; color: ${color.slate}; font-weight: 600; }
  &[data-focus-visible] { outline: 2px solid ${color.slate}; outline-offset: 2px; }
`
const Waiting = styled.pre`
  margin: 0;
  min-height: 120px;
  max-height: 62vh;
  overflow: auto;
  font: 15px/24px ${font.mono};
`
