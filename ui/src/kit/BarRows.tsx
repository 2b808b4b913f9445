import type { ReactNode } from 'react'
import styled from 'styled-components'

import { color, font, space } from '../theme'

/** A stretch of a bar: how much of what. */
export type Stretch = { of: string; count: number; tone: 'slate' | 'rust' | 'amber' | 'reed' | 'edge' }
export type BarRow = { key: string; name: ReactNode; stretches: Stretch[]; total?: ReactNode }

/** A plot as a table: a name, a bar to the largest of all, and the number, which does without the bar. */
export function BarRows({ label, head, rows }: { label: string; head: [string, string]; rows: BarRow[] }) {
  const sums = rows.map(({ stretches }) => stretches.reduce((sum, { count }) => sum + count, 0))
  const most = Math.max(1, ...sums)
  return (
    <Plot aria-label={label}>
      <thead><tr><th>{head[0]}</th><th aria-hidden="true" /><th>{head[1]}</th></tr></thead>
      <tbody>
        {rows.map(({ key, name, stretches, total }, i) => (
          <tr key={key}>
            <th scope="row">{name}</th>
            <td aria-hidden="true"><Track>{stretches.filter(({ count }) => count > 0).map(({ of, count, tone }) =>
              <Bar key={of} $tone={tone} title={`${of} ${String(count)}`}
                style={{ width: `${String((count / most) * 100)}%` }} />)}</Track></td>
            <td>{total ?? (sums[i] ?? 0).toLocaleString('en')}</td>
          </tr>
        ))}
      </tbody>
    </Plot>
  )
}

const Plot = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: 15px;
  thead th { color: ${color.faint}; font-size: 13px; font-weight: 400; text-align: left; }
  thead th:last-child { text-align: right; }
  th, td { padding: 2px 0; }
  tbody th { width: 1%; padding-right: ${space(1)}; font-weight: 400; text-align: left; white-space: nowrap;
    max-width: 160px; overflow: hidden; text-overflow: ellipsis; }
  td:nth-child(2) { width: 100%; }
  td:last-child { padding-left: ${space(1)}; font: 14px/24px ${font.mono}; text-align: right; white-space: nowrap; }
`
const Track = styled.span`
  display: flex;
  gap: 1px;
  min-width: 40px;
`
const Bar = styled.span<{ $tone: Stretch['tone'] }>`
  height: 14px;
  min-width: 2px;
  background: ${({ $tone }) => color[$tone]};
`
