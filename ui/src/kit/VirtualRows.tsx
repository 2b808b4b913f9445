import { defaultRangeExtractor, useWindowVirtualizer } from '@tanstack/react-virtual'
import { useCallback, useLayoutEffect, useRef, useState } from 'react'

/** Rows that are drawn beyond those in sight, so that scrolling meets drawn ones. */
export const overscan = 15

export type VirtualRows = {
  /** Set as the reference of what holds the rows. */
  box: (box: HTMLElement | null) => void
  /** The indices that are drawn, in order. */
  drawn: number[]
  /** Pixels that the rows before an index that is drawn would take beyond those that are drawn. */
  gapBefore: (index: number) => number
  gapAfter: number
  /** Set as the reference of each row that has its index as `data-index`: it may be of any height. */
  measure: (row: HTMLElement | null) => void
  scrollTo: (index: number) => void
}

/**
 * The rows of a list that can grow: only those in sight are drawn, and the one that is kept, as it has the keyboard.
 * `estimate` is the usual height of a row in pixels.
 */
export function useVirtualRows(count: number, estimate: number, kept = -1): VirtualRows {
  const held = useRef<HTMLElement>(null)
  const box = useCallback((now: HTMLElement | null) => { held.current = now }, [])
  const [top, setTop] = useState(0)
  // What stands above the list may grow: forms, filters.
  useLayoutEffect(() => {
    const now = (held.current?.getBoundingClientRect().top ?? 0) + window.scrollY
    if (Math.abs(now - top) > 1) setTop(now)
  }, [count, top])
  const rows = useWindowVirtualizer({
    count, estimateSize: () => estimate, overscan, scrollMargin: top,
    rangeExtractor: (range) => {
      const drawn = defaultRangeExtractor(range)
      return kept < 0 || kept >= count || drawn.includes(kept) ? drawn : [...drawn, kept].sort((a, b) => a - b)
    },
  })
  const items = rows.getVirtualItems()
  const ends = new Map(items.map(({ index }, i) => [index, items[i - 1]?.end ?? top]))
  const starts = new Map(items.map(({ index, start }) => [index, start]))
  return {
    box,
    drawn: items.map(({ index }) => index),
    gapBefore: (index) => Math.max(0, (starts.get(index) ?? 0) - (ends.get(index) ?? 0)),
    gapAfter: Math.max(0, rows.getTotalSize() + top - (items.at(-1)?.end ?? top)),
    measure: rows.measureElement,
    scrollTo: (index) => { rows.scrollToIndex(index, { align: 'center' }) },
  }
}

/** Stands in a table for the rows that are not drawn. */
export function GapRow({ height, columns }: { height: number; columns: number }) {
  return height > 0 ? <tr aria-hidden="true">
    <td colSpan={columns} style={{ height, padding: 0, border: 'none' }} />
  </tr> : null
}
