import { type KeyboardEvent, type PointerEvent, useRef } from 'react'
import styled from 'styled-components'

import { color } from '../../../../theme'

type Point = { x: number; y: number }

const wide = 240
const high = 140
const step = 0.05
const within = (value: number) => Math.min(1, Math.max(0, value))
const arrows: Record<string, Point | undefined> = { ArrowLeft: { x: -step, y: 0 }, ArrowRight: { x: step, y: 0 },
  ArrowUp: { x: 0, y: -step }, ArrowDown: { x: 0, y: step } }

/** How fasteners are laid out, as they came: each is moved by dragging, or by the arrow keys. */
export function Pattern({ points, onMove }: { points: Point[]; onMove?: (points: Point[]) => void }) {
  const field = useRef<SVGSVGElement>(null)
  const dragged = useRef(-1)
  const put = (at: number,
    to: Point) => { onMove?.(points.map((one, i) => (i === at ? { x: within(to.x), y: within(to.y) } : one))) }
  const onDrag = (event: PointerEvent) => {
    const box = field.current?.getBoundingClientRect()
    if (dragged.current >= 0 && box)
      put(dragged.current, { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height })
  }
  const onKey = (event: KeyboardEvent, at: number) => {
    const by = arrows[event.key]
    const from = points[at]
    if (!by || !from) return
    event.preventDefault()
    put(at, { x: from.x + by.x, y: from.y + by.y })
  }
  return (
    <Field
      ref={field}
      viewBox={`0 0 ${String(wide)} ${String(high)}`}
      role={onMove ? 'group' : 'img'}
      aria-label={onMove ? 'How they are laid out' : `Laid out as they came, ${String(points.length)} pieces`}
      onPointerMove={onDrag}
      onPointerUp={() => { dragged.current = -1 }}
    >
      {points.map(({ x, y }, i) => (
        <g
          key={i}
          tabIndex={onMove && 0}
          role={onMove && 'button'}
          aria-label={onMove && `Piece ${String(i + 1)}, moved by the arrow keys`}
          onKeyDown={(event) => { onKey(event, i) }}
          onPointerDown={(event) => { dragged.current = i; event.currentTarget.setPointerCapture(event.pointerId) }}
        >
          <circle cx={12 + x * (wide - 24)} cy={12 + y * (high - 24)} r="9" />
          <path d={`M${String(8 + x * (wide - 24))} ${String(12 + y * (high - 24))}h8m-4-4v8`} />
        </g>
      ))}
    </Field>
  )
}

const Field = styled.svg`
  width: ${wide}px;
  max-width: 100%;
  border: 1px solid ${color.line};
  background: ${color.paper};
  touch-action: none;
  circle { fill: ${color.sheet}; stroke: ${color.ink}; stroke-width: 1.5; }
  path { stroke: ${color.ink}; stroke-width: 1.5; }
  g:focus-visible circle { stroke: ${color.slate}; stroke-width: 3; }
`
