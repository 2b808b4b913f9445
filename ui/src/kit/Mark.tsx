import styled from 'styled-components'

import { color } from '../theme'

export type MarkKind = 'none' | 'working' | 'attention' | 'done' | 'later' | 'unknown' | 'problem' | 'part' | 'text'

const drawings: Record<MarkKind, { path: string; tone: keyof typeof color; filled?: boolean }> = {
  none: { path: 'M8 3a5 5 0 1 0 0 10A5 5 0 0 0 8 3Z', tone: 'edge' },
  working: { path: 'M8 3a5 5 0 1 0 0 10Z M8 3a5 5 0 0 1 0 10', tone: 'slate', filled: true },
  attention: { path: 'M8 2.5 14 13.5H2Z M8 6.5v3.5 M8 11.5v.6', tone: 'amber' },
  done: { path: 'M2.5 8.5 6.5 12.5 13.5 4', tone: 'reed' },
  later: { path: 'M4 8h.1 M8 8h.1 M12 8h.1', tone: 'edge' },
  unknown: { path: 'M5.5 6a2.5 2.5 0 1 1 3.6 2.2C8.3 8.7 8 9.2 8 10 M8 12.6v.2', tone: 'amber' },
  problem: { path: 'M8 2.5v7.5 M8 12.6v.4', tone: 'rust' },
  part: { path: 'M5 5h6v6H5Z', tone: 'edge' },
  text: { path: 'M3 5h10 M3 8h10 M3 11h6', tone: 'edge' },
}

/** A small drawn mark. It always stands beside its word, so it is hidden from screen readers. */
export function Mark({ kind }: { kind: MarkKind }) {
  const { path, tone, filled } = drawings[kind]
  return (
    <Drawing viewBox="0 0 16 16" aria-hidden="true" $tone={tone}>
      <path d={path} fill={filled ? 'currentColor' : 'none'} />
    </Drawing>
  )
}

const Drawing = styled.svg<{ $tone: keyof typeof color }>`
  width: 16px;
  height: 16px;
  flex: none;
  color: ${({ $tone }) => color[$tone]};
  path { stroke: currentColor; stroke-width: 2; stroke-linecap: round; stroke-linejoin: round; fill-opacity: 1; }
`

/** The drawing as markup, for the margin of the editor, which React does not draw. */
export function markSource(kind: MarkKind): SVGSVGElement {
  const { path, tone, filled } = drawings[kind]
  const names = 'http://www.w3.org/2000/svg'
  const svg = document.createElementNS(names, 'svg')
  svg.setAttribute('viewBox', '0 0 16 16')
  svg.setAttribute('aria-hidden', 'true')
  svg.style.cssText = `width: 14px; height: 14px; color: var(--${tone}); vertical-align: -2px;`
  const drawn = document.createElementNS(names, 'path')
  drawn.setAttribute('d', path)
  drawn.setAttribute('fill', filled ? 'currentColor' : 'none')
  drawn.setAttribute('stroke', 'currentColor')
  drawn.setAttribute('stroke-width', '2')
  drawn.setAttribute('stroke-linecap', 'round')
  svg.append(drawn)
  return svg
}
