import { useWindowVirtualizer } from '@tanstack/react-virtual'
import { useLayoutEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import type { Schemas } from '../../api/client'
import type { MachineQuery } from '../../api/machines'
import { Figure, ListTable, Scroll } from '../../kit/ListTable'
import { color, font, target } from '../../theme'
import type { Sort } from './machineFilters'

type Machine = Schemas['ListedMachine']
type Props = {
  machines: Machine[]
  total: number
  query: MachineQuery
  onSort: (sort: Sort) => void
  /** The end of what is loaded comes into sight. */
  onEnd: () => void
}

const columns: { sort: Sort; title: string; width: string; figure?: boolean }[] = [
  { sort: 'accession', title: 'Accession', width: '104px' },
  { sort: 'name', title: 'Machine', width: '20%' },
  { sort: 'maker', title: 'Maker and model', width: '26%' },
  { sort: 'place', title: 'Place', width: '20%' },
  { sort: 'year', title: 'From year', width: '84px', figure: true },
  { sort: 'chips', title: 'Chips', width: '60px', figure: true },
  { sort: 'unidentified', title: 'Unknown', width: '80px', figure: true },
  { sort: 'ram', title: 'RAM, KB', width: '82px', figure: true },
  { sort: 'rom', title: 'ROM, KB', width: '82px', figure: true },
]

/** Rows that are drawn beyond those in sight, so that scrolling meets drawn ones. */
const overscan = 15

/** Machines as a table; a row leads to the bench. Only the rows in sight are drawn. */
export function MachineTable({ machines, total, query, onSort, onEnd }: Props) {
  const body = useRef<HTMLTableSectionElement>(null)
  const [top, setTop] = useState(0)
  // What stands above the table may grow: forms, filters.
  useLayoutEffect(() => {
    const now = (body.current?.getBoundingClientRect().top ?? 0) + window.scrollY
    if (Math.abs(now - top) > 1) setTop(now)
  }, [machines.length, top])
  const rows = useWindowVirtualizer({ count: machines.length, estimateSize: () => 37, overscan, scrollMargin: top })
  const drawn = rows.getVirtualItems()
  const first = drawn[0]
  const last = drawn[drawn.length - 1]
  useLayoutEffect(() => {
    if (last && last.index >= machines.length - overscan) onEnd()
  }, [last, machines.length, onEnd])
  const sort = query.sort ?? 'accession'
  return (
    <Scroll>
      <Wide aria-rowcount={total + 1}>
        <colgroup>{columns.map(({ sort: key, width }) => <col key={key} style={{ width }} />)}</colgroup>
        <thead>
          <tr aria-rowindex={1}>
            {columns.map(({ sort: key, title, figure }) => (
              <Figure as="th" key={key} $text={!figure}
                aria-sort={sort === key ? (query.down ? 'descending' : 'ascending') : undefined}>
                <SortBy type="button" onClick={() => { onSort(key) }}>{title}
                  {sort === key && <span aria-hidden="true">{query.down ? ' ▾' : ' ▴'}</span>}</SortBy>
              </Figure>
            ))}
          </tr>
        </thead>
        <tbody ref={body}>
          {first && <Gap $height={first.start - top} />}
          {drawn.map(({ index }) => {
            const machine = machines[index]
            return machine && <Row key={machine.id} machine={machine} index={index} measure={rows.measureElement} />
          })}
          {last && <Gap $height={rows.getTotalSize() + top - last.end} />}
        </tbody>
      </Wide>
    </Scroll>
  )
}

const Disputed = styled.span`
  display: block;
  font: 12px/1 ${font.body};
`

function Row({ machine, index, measure }: { machine: Machine; index: number;
  measure: (row: HTMLTableRowElement | null) => void }) {
  return (
    <tr ref={measure} data-index={index} aria-rowindex={index + 2}>
      <Accession>{machine.accession}</Accession>
      <td><Link to={`/bench/${String(machine.id)}`}>{machine.name}</Link></td>
      <td>{[machine.maker, machine.model].filter(Boolean).join(' ')}</td>
      <td>{machine.place}</td>
      <Figure>{machine.eraFrom}</Figure>
      <Figure>{machine.chips}</Figure>
      <Figure $warn={machine.unidentified > 0}>{machine.unidentified || ''}</Figure>
      <Figure $warn={machine.memoryDisputed}>
        {machine.memoryDisputed && <Disputed title="Disputed: sources that are equally strong differ">
          disputed
        </Disputed>}{machine.ram}
      </Figure>
      <Figure>{machine.rom}</Figure>
    </tr>
  )
}

/** Stands for the rows that are not drawn. */
function Gap({ $height }: { $height: number }) {
  return $height > 0 ? <tr aria-hidden="true">
    <td colSpan={columns.length} style={{ height: $height, padding: 0, border: 'none' }} />
  </tr> : null
}

const Accession = styled.td`
  font: 14px/24px ${font.mono};
  white-space: nowrap;
`
const Wide = styled(ListTable)`
  table-layout: fixed;
  min-width: 860px;
`
const SortBy = styled.button`
  min-height: ${target.small};
  padding: 0;
  border: none;
  background: none;
  font-weight: 600;
  cursor: pointer;
  white-space: nowrap;
  &:hover { color: ${color.slate}; text-decoration: underline; }
`
