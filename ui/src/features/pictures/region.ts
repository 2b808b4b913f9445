import type { Region } from '../../api/dossier'

/** A picture that is open, and the part of it that is marked; of a recording, the second from which it plays. */
export type Opened = { id: number; region?: Region; from?: number }

/** Words of an address that open a picture, with its marked part. */
export const atPicture = ({ id, region }: { id: number; region?: Region | null }) =>
  `picture=${String(id)}${region ? `&part=${[region.x, region.y, region.w, region.h].join(',')}` : ''}`

/** The picture that an address opens, if any. */
export function pictureAt(search: string): Opened | undefined {
  const asked = new URLSearchParams(search)
  const id = Number(asked.get('picture'))
  const [x, y, w, h] = (asked.get('part') ?? '').split(',').map(Number)
  if (!Number.isInteger(id) || id < 1) return undefined
  const isPart = [x, y, w, h].every((one) => one !== undefined && one >= 0 && one <= 1)
  return { id, ...(isPart && { region: { x, y, w, h } as Region }) }
}

type Spot = { x: number; y: number }

const inside = (value: number) => Math.min(1, Math.max(0, value))

/** The whole picture. */
export const whole: Region = { x: 0, y: 0, w: 1, h: 1 }

/** The part between two spots, whichever of them is the upper left one. */
export function between(a: Spot, b: Spot): Region | undefined {
  const [left, right] = [inside(Math.min(a.x, b.x)), inside(Math.max(a.x, b.x))]
  const [top, bottom] = [inside(Math.min(a.y, b.y)), inside(Math.max(a.y, b.y))]
  const region = { x: left, y: top, w: right - left, h: bottom - top }
  return region.w < 0.005 || region.h < 0.005 ? undefined : region
}

const step = 0.02

/** The part after an arrow key: moved, or with Shift larger or smaller; undefined for other keys. */
export function moved(region: Region, key: string, size: boolean): Region | undefined {
  const by = { ArrowLeft: { x: -step, y: 0 }, ArrowRight: { x: step, y: 0 }, ArrowUp: { x: 0, y: -step },
    ArrowDown: { x: 0, y: step } }[key]
  if (!by) return undefined
  if (size)
    return { ...region, w: Math.min(1 - region.x, Math.max(step, region.w + by.x)),
      h: Math.min(1 - region.y, Math.max(step, region.h + by.y)) }
  const start = region.w === 1 && region.h === 1 ? { x: 0.4, y: 0.4, w: 0.2, h: 0.2 }
    : region // the first key draws a part in the middle
  return { ...start, x: Math.min(1 - start.w, Math.max(0, start.x + by.x)),
    y: Math.min(1 - start.h, Math.max(0, start.y + by.y)) }
}
