import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react'
import styled from 'styled-components'

import { color, font, space } from '../../../theme'

export type Tones = Record<string, { word: string; tone: keyof typeof color; opacity: number }>
type Props = { kinds: string; cell: number; bytes: number; offset: number; tones: Tones; label: string;
  onOffset: (offset: number) => void }

/** How many cells are in sight at least, however far one zooms in. */
const leastInSight = 64
const height = 72

/**
 * An image as a band of cells, a colour for what each holds. The wheel and + and - zoom around the pointer or the mark,
 * arrow keys move the mark, and whoever points reads the offset.
 */
export function ByteMap({ kinds, cell, bytes, offset, tones, label, onOffset }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const [sight, setSight] = useState({ from: 0, count: kinds.length })
  const [under, setUnder] = useState<number>()
  const [width, setWidth] = useState(800)
  useEffect(() => {
    const box = canvas.current?.parentElement
    if (!box) return
    const watch = new ResizeObserver(() => { setWidth(box.clientWidth) })
    watch.observe(box)
    return () => { watch.disconnect() }
  }, [])
  useEffect(() => {
    const drawing = canvas.current?.getContext('2d')
    if (!drawing || !canvas.current) return
    const style = getComputedStyle(canvas.current)
    const inks = Object.fromEntries(Object.entries(tones).map(([kind, { tone }]) =>
      [kind, style.getPropertyValue(`--${tone}`)]))
    drawing.clearRect(0, 0, width, height)
    // A column for each pixel; where cells are wider, each fills several.
    for (let x = 0; x < width; x++) {
      const kind = kinds[sight.from + Math.floor((x / width) * sight.count)]
      const tone = kind === undefined ? undefined : tones[kind]
      if (!tone || kind === undefined) continue
      drawing.globalAlpha = tone.opacity
      drawing.fillStyle = inks[kind] ?? ''
      drawing.fillRect(x, 0, 1, height)
    }
    drawing.globalAlpha = 1
  }, [kinds, sight, tones, width])

  const at = (event: { clientX: number }) => {
    const box = canvas.current?.getBoundingClientRect()
    if (!box) return 0
    const part = Math.min(0.9999, Math.max(0, (event.clientX - box.left) / box.width))
    return Math.min(bytes - 1, Math.floor((sight.from + part * sight.count) * cell))
  }
  const zoom = (factor: number, around: number) => {
    const count = Math.max(Math.min(leastInSight, kinds.length),
      Math.min(kinds.length, Math.round(sight.count * factor)))
    const centre = around / cell
    const from = Math.round(centre - ((centre - sight.from) / sight.count) * count)
    setSight({ from: Math.max(0, Math.min(kinds.length - count, from)), count })
  }
  // React listens to the wheel passively; the page must not scroll meanwhile.
  useEffect(() => {
    const drawn = canvas.current
    const wheel = (event: WheelEvent) => {
      event.preventDefault()
      zoom(event.deltaY > 0 ? 1.25 : 0.8, at(event))
    }
    drawn?.addEventListener('wheel', wheel, { passive: false })
    return () => { drawn?.removeEventListener('wheel', wheel) }
  })
  const onKey = (event: KeyboardEvent) => {
    const step = event.shiftKey ? cell * 16 : cell
    const next = { ArrowLeft: offset - step, ArrowRight: offset + step, Home: 0, End: bytes - 1 }[event.key]
    if (event.key === '+' || event.key === '-') zoom(event.key === '+' ? 0.5 : 2, offset)
    else if (next !== undefined) onOffset(Math.max(0, Math.min(bytes - 1, next)))
    else return
    event.preventDefault()
  }
  const mark = ((offset / cell - sight.from) / sight.count) * 100
  const pointed = under ?? offset
  const kind = kinds[Math.floor(pointed / cell)] ?? ''
  return (
    <div>
      <Frame>
        <canvas
          ref={canvas}
          width={width}
          height={height}
          tabIndex={0}
          role="slider"
          aria-label={label}
          aria-valuemin={0}
          aria-valuemax={bytes - 1}
          aria-valuenow={offset}
          aria-valuetext={`${hex(offset)}, ${tones[kinds[Math.floor(offset / cell)] ?? '']?.word ?? ''}`}
          onPointerMove={(event: PointerEvent) => { setUnder(at(event)) }}
          onPointerLeave={() => { setUnder(undefined) }}
          onPointerDown={(event: PointerEvent) => { onOffset(at(event)) }}
          onKeyDown={onKey}
        />
        {mark >= 0 && mark <= 100 && <Marked style={{ left: `${String(mark)}%` }} />}
      </Frame>
      <Below>
        <span>{hex(sight.from * cell)}</span>
        <strong>{hex(pointed)} {tones[kind]?.word}</strong>
        <span>{hex(Math.min(bytes, (sight.from + sight.count) * cell) - 1)}</span>
      </Below>
      <Legend>
        {Object.entries(tones).filter(([one]) => kinds.includes(one)).map(([one, { word, tone, opacity }]) => (
          <li key={one}><Swatch style={{ background: color[tone], opacity }} /> {word}</li>
        ))}
        <li>wheel or + and - zoom, arrows move</li>
      </Legend>
    </div>
  )
}

/** An offset as it is written beside bytes. */
export const hex = (offset: number) => offset.toString(16).toUpperCase().padStart(4, '0')

const Frame = styled.div`
  position: relative;
  border: 1px solid ${color.edge};
  canvas { display: block; width: 100%; height: ${height}px; cursor: crosshair; }
  canvas:focus-visible { outline: 2px solid ${color.slate}; outline-offset: 2px; }
`
const Marked = styled.span`
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  background: ${color.ink};
  pointer-events: none;
`
const Below = styled.div`
  display: flex;
  justify-content: space-between;
  font: 14px/24px ${font.mono};
`
const Legend = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 4px ${space(2)};
  color: ${color.faint};
  font-size: 14px;
`
const Swatch = styled.span`
  display: inline-block;
  width: 12px;
  height: 12px;
  border: 1px solid ${color.edge};
  vertical-align: -1px;
`
