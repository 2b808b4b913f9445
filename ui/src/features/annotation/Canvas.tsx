import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react'
import styled from 'styled-components'

import { viewOf } from '../../api/attachments'
import type { AnnotationView } from '../../api/annotations'
import { Faint } from '../../kit/Page'
import { color, font } from '../../theme'

type Row = { x1: number; y1: number; x2: number; y2: number }
type Props = {
  told: AnnotationView
  mayWrite: boolean
  chosen: string | undefined
  /** What is gathered for an outline, while one is made. */
  members: string[] | undefined
  toPlace: string | undefined
  onChoose: (designator: string | undefined) => void
  onMember: (designator: string) => void
  onPlace: (x: number, y: number) => void
  onRow: (row: Row) => void
  onMove: (designator: string, x: number, y: number) => void
  onRemove: (designator: string) => void
}

/** So far a pointer moves before it counts as a drag, in parts of the picture. */
const leastDrag = 0.02
const within = (part: number) => Math.min(1, Math.max(0, part))
const arrows: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1],
  ArrowDown: [0, 1] }
const percent = (part: number) => `${String(part * 100)}%`

/**
 * The picture with its numbers. A click places the part whose turn it is, a drag a run of parts; by keyboard the arrows
 * move
 * a cross, Enter places at it, and R begins a run there that Enter ends. Tab steps through the numbers.
 */
export function Canvas({ told, mayWrite, chosen, members, toPlace, onChoose, onMember, onPlace, onRow, onMove,
  onRemove }: Props) {
  const frame = useRef<HTMLDivElement>(null)
  const [from, setFrom] = useState<{ x: number; y: number }>()
  const [to, setTo] = useState<{ x: number; y: number }>()
  const [cross, setCross] = useState<{ x: number; y: number }>()
  const places = mayWrite && toPlace !== undefined && !members
  const spot = (event: PointerEvent) => {
    const box = frame.current?.getBoundingClientRect()
    return box ? { x: within((event.clientX - box.left) / box.width),
      y: within((event.clientY - box.top) / box.height) } : { x: 0, y: 0 }
  }
  const end = (event: PointerEvent) => {
    if (!from) return
    const at = spot(event)
    setFrom(undefined)
    setTo(undefined)
    if (Math.hypot(at.x - from.x, at.y - from.y) < leastDrag) onPlace(at.x, at.y)
    else onRow({ x1: from.x, y1: from.y, x2: at.x, y2: at.y })
  }
  const onKey = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget || !places) return
    const at = cross ?? { x: 0.5, y: 0.5 }
    const arrow = arrows[event.key]
    if (arrow) {
      const step = event.shiftKey ? 0.05 : 0.01
      setCross({ x: within(at.x + arrow[0] * step), y: within(at.y + arrow[1] * step) })
    } else if (event.key === 'Enter') {
      if (from) onRow({ x1: from.x, y1: from.y, x2: at.x, y2: at.y })
      else onPlace(at.x, at.y)
      setFrom(undefined)
    } else if (event.key.toLowerCase() === 'r') {
      setFrom(at)
    } else if (event.key === 'Escape') {
      setFrom(undefined)
    } else return
    event.preventDefault()
  }
  const line = from && (to ?? cross)
  return (
    <>
      <Frame
        ref={frame}
        tabIndex={0}
        role="group"
        data-places={places || undefined}
        aria-label={places
          ? `Picture of the board; ${toPlace} is placed next. Arrows move the cross, Enter places, R begins a run`
            : 'Picture of the board'}
        onKeyDown={onKey}
        onPointerDown={(event) => { if (places && event.button === 0) { setFrom(spot(event)); setCross(undefined) } }}
        onPointerMove={(event) => { if (from && !cross) setTo(spot(event)) }}
        onPointerUp={end}
      >
        <img src={viewOf(told.attachmentId, 'screen')} alt="" draggable={false} />
        {told.annotation.blocks.map((block, i) => {
          const box = told.boxes[i]
          return box
            && <Outline key={block.name}
              style={{ left: percent(box.x), top: percent(box.y), width: percent(box.w),
                height: percent(box.h) }}><span>{block.name}</span></Outline>
        })}
        {told.legend.numbered.map((one) => (
          <Number
            key={one.designator}
            type="button"
            title={`${one.designator} ${one.words}`}
            aria-label={`${String(one.n)}: ${one.designator}, ${one.words || 'not on the sheet'}`}
            aria-pressed={members ? members.includes(one.designator) : undefined}
            data-chosen={one.designator === chosen || members?.includes(one.designator) || undefined}
            data-stray={one.line === 0 || undefined}
            style={{ left: percent(one.x), top: percent(one.y) }}
            onPointerDown={(event) => { event.stopPropagation() }}
            onFocus={() => { onChoose(one.designator) }}
            onMouseEnter={() => { onChoose(one.designator) }}
            onClick={() => { if (members) onMember(one.designator) }}
            onKeyDown={(event) => {
              const arrow = arrows[event.key]
              if (!mayWrite || members) return
              if (arrow) onMove(one.designator, within(one.x + arrow[0] * 0.01), within(one.y + arrow[1] * 0.01))
              else if (event.key === 'Delete') onRemove(one.designator)
              else return
              event.preventDefault()
            }}
          >
            {one.n}
          </Number>
        ))}
        {places && cross && <Cross style={{ left: percent(cross.x), top: percent(cross.y) }} />}
        {line && <Drawn viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden="true">
          <line x1={from.x * 100} y1={from.y * 100} x2={line.x * 100} y2={line.y * 100} />
        </Drawn>}
      </Frame>
      <Faint className="no-print">
        {members
          ? 'Choose the numbers that belong together.'
          : places
            ? `${toPlace} is next: click where it is, or drag along a run. On a number, arrows move it and Delete takes it off.`
            : mayWrite && told.annotation.callouts.length > 0
              && 'All parts of the sheet have a number. On a number, arrows move it and Delete takes it off.'}
      </Faint>
    </>
  )
}

const Frame = styled.div`
  position: relative;
  touch-action: none;
  user-select: none;
  &[data-places] { cursor: crosshair; }
  img { display: block; width: 100%; }
  &:focus-visible { outline: 2px solid ${color.slate}; outline-offset: 2px; }
`
const Number = styled.button`
  position: absolute;
  display: grid;
  place-items: center;
  min-width: 24px;
  height: 24px;
  padding: 0 3px;
  transform: translate(-50%, -50%);
  border: 1.5px solid #1d2b33;
  border-radius: 12px;
  background: #fffdf9;
  color: #1d2b33;
  font: 600 13px/1 ${font.mono};
  cursor: pointer;
  &[data-stray] { border-style: dashed; background: #fbeed3; }
  &[data-chosen] { background: #2f5d73; color: #ffffff; }
  &:focus-visible { outline: 3px solid #ffd24d; outline-offset: 1px; }
`
const Outline = styled.div`
  position: absolute;
  border: 3px dashed #2f5d73;
  outline: 2px solid #fffdf9;
  pointer-events: none;
  span { position: absolute; left: 0; bottom: 100%; padding: 0 4px; background: #fffdf9; color: #1d2b33;
    font-weight: 600; font-size: 14px; white-space: nowrap; }
`
const Cross = styled.div`
  position: absolute;
  width: 25px;
  height: 25px;
  transform: translate(-50%, -50%);
  background: linear-gradient(#ffd24d, #ffd24d) center / 3px 100% no-repeat,
    linear-gradient(#ffd24d, #ffd24d) center / 100% 3px no-repeat;
  outline: 1px solid #1d2b33;
  pointer-events: none;
`
const Drawn = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  line { stroke: #ffd24d; stroke-width: 3; vector-effect: non-scaling-stroke; }
`
