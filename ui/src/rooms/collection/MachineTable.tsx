import { Fragment, useLayoutEffect } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import type { Schemas } from '../../api/client'
import type { MachineQuery } from '../../api/machines'
import { Figure, ListTable, Scroll } from '../../kit/ListTable'
import { GapRow, overscan, useVirtualRows } from '../../kit/VirtualRows'
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

/** Machines as a table; a row leads to the bench. Only the rows in sight are drawn. */
export function MachineTable({ machines, total, query, onSort, onEnd }: Props) {
  const { box, drawn, gapBefore, gapAfter, measure } = useVirtualRows(machines.length, 37)
  const last = drawn.at(-1) ?? 0
  useLayoutEffect(() => {
    if (machines.length > 0 && last >= machines.length - overscan) onEnd()
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
        <tbody ref={box}>
          {drawn.map((index) => {
            const machine = machines[index]
            return machine && <Fragment key={machine.id}>
              <GapRow height={gapBefore(index)} columns={columns.length} />
              <Row machine={machine} index={index} measure={measure} />
            </Fragment>
          })}
          <GapRow height={gapAfter} columns={columns.length} />
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
