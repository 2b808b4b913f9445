import { type KeyboardEvent, type PointerEvent, type RefObject, useRef, useState } from 'react'
import styled from 'styled-components'

import type { Region } from '../../api/dossier'
import { color } from '../../theme'
import { between, moved, whole } from './region'
import { usePictureAddress } from './usePictureAddress'

type Props = { id: number; alt: string; region: Region | undefined; onMark?: (region: Region | undefined) => void;
  frame?: RefObject<HTMLDivElement | null> }

/** A picture on which a part is marked, by pointer or by arrow keys; without onMark it only shows the mark. */
export function MarkedPicture({ id, alt, region, onMark, frame }: Props) {
  const own = useRef<HTMLDivElement>(null)
  const ref = frame ?? own
  const [from, setFrom] = useState<{ x: number; y: number }>()
  const spot = (event: PointerEvent) => {
    const box = ref.current?.getBoundingClientRect()
    if (!box) return { x: 0, y: 0 }
    return { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height }
  }
  const onKey = (event: KeyboardEvent) => {
    const next = moved(region ?? whole, event.key, event.shiftKey)
    if (!next) return
    event.preventDefault()
    onMark?.(next)
  }
  const marking = onMark && {
    tabIndex: 0,
    role: 'group',
    'aria-label': 'Picture; arrow keys move the mark, with Shift they size it',
    onKeyDown: onKey,
    onPointerDown: (event: PointerEvent) => {
      event.currentTarget.setPointerCapture(event.pointerId)
      setFrom(spot(event))
    },
    onPointerMove: (event: PointerEvent) => { if (from) onMark(between(from, spot(event))) },
    onPointerUp: () => { setFrom(undefined) },
  }
  return (
    <Frame ref={ref} data-marking={onMark ? true : undefined} {...marking}>
      <img src={usePictureAddress(id, 'screen')} alt={alt} draggable={false} />
      {region && <Marked style={{ left: `${String(region.x * 100)}%`, top: `${String(region.y * 100)}%`,
        width: `${String(region.w * 100)}%`, height: `${String(region.h * 100)}%` }} />}
    </Frame>
  )
}

const Frame = styled.div`
  position: relative;
  align-self: center;
  max-width: 100%;
  user-select: none;
  img { display: block; max-width: 100%; max-height: 68vh; }
  &[data-marking] { cursor: crosshair; touch-action: none; }
  &:focus-visible { outline: 2px solid ${color.slate}; outline-offset: 2px; }
`
const Marked = styled.div`
  position: absolute;
  border: 2px solid #ffd24d;
  outline: 2px solid #1d2b33;
  background: rgb(255 210 77 / 18%);
  pointer-events: none;
`
