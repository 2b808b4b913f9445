import { Fragment, useLayoutEffect } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import type { Schemas } from '../../api/client'
import type { MachineQuery } from '../../api/machines'
import { Tick } from '../../kit/Field'
import { Figure, ListTable, Scroll } from '../../kit/ListTable'
import { MachineThumb } from '../../features/pictures/MachineThumb'
import { GapRow, overscan, useVirtualRows } from '../../kit/VirtualRows'
import { color, font, space, target } from '../../theme'
import type { MachineColumn } from './columns'
import type { Sort } from './machineFilters'

type Machine = Schemas['ListedMachine']
type Props = {
  machines: Machine[]
  total: number
  query: MachineQuery
  columns: MachineColumn[]
  chosen: ReadonlySet<number>
  onChoose: (chosen: ReadonlySet<number>) => void
  onSort: (sort: Sort) => void
  /** The end of what is loaded comes into sight. */
  onEnd: () => void
}

/** Machines as a table, on a phone as cards; a row leads to the bench. Only the rows in sight are drawn. */
export function MachineTable({ machines, total, query, columns, chosen, onChoose, onSort, onEnd }: Props) {
  const { box, drawn, gapBefore, gapAfter, measure } = useVirtualRows(machines.length, 37)
  const last = drawn.at(-1) ?? 0
  useLayoutEffect(() => {
    if (machines.length > 0 && last >= machines.length - overscan) onEnd()
  }, [last, machines.length, onEnd])
  const sort = query.sort ?? 'accession'
  const hasAll = machines.length > 0 && machines.every(({ id }) => chosen.has(id))
  return (
    <Scroll>
      <Wide aria-rowcount={total + 1}>
        <colgroup><col style={{ width: '36px' }} />
          {columns.map(({ key, width }) => <col key={key} style={{ width }} />)}</colgroup>
        <thead>
          <tr aria-rowindex={1}>
            <th><Tick isOn={hasAll}
              label={<span className="only-read">Choose all {machines.length} that are here</span>}
              onChange={() => { onChoose(new Set(hasAll ? [] : machines.map(({ id }) => id))) }} /></th>
            {columns.map(({ key, title, isFigure }) => (
              <Figure as="th" key={key} $text={!isFigure}
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
            const isChosen = machine !== undefined && chosen.has(machine.id)
            return machine && <Fragment key={machine.id}>
              <GapRow height={gapBefore(index)} columns={columns.length + 1} />
              <tr ref={measure} data-index={index} aria-rowindex={index + 2} aria-selected={isChosen}>
                <td><Tick isOn={isChosen} label={<span className="only-read">Choose {machine.accession}</span>}
                  onChange={() => {
                    onChoose(new Set(isChosen ? [...chosen].filter((id) => id !== machine.id)
                      : [...chosen, machine.id]))
                  }} /></td>
                {columns.map((column) => <Cell key={column.key} column={column} machine={machine} />)}
              </tr>
            </Fragment>
          })}
          <GapRow height={gapAfter} columns={columns.length + 1} />
        </tbody>
      </Wide>
    </Scroll>
  )
}

function Cell({ column: { key, title, isFigure }, machine }: { column: MachineColumn; machine: Machine }) {
  switch (key) {
    case 'accession': return <Accession>{machine.accession}</Accession>
    case 'name': return <td><Name><MachineThumb id={machine.pictureId} />
      <Link to={`/bench/${String(machine.id)}`}>{machine.name}</Link></Name></td>
    case 'maker': return <td>{[machine.maker, machine.model].filter(Boolean).join(' ')}</td>
    case 'place': return <td>{machine.place}</td>
    case 'unidentified':
      return <Figure data-title={title} $warn={machine.unidentified > 0}>{machine.unidentified > 0
        && <Link to={`/bench/${String(machine.id)}/identify#unknowns`}>{machine.unidentified}</Link>}</Figure>
    case 'ram':
      return <Figure data-title={title} $warn={machine.memoryDisputed}>
        {machine.memoryDisputed && <Disputed title="Disputed: sources that are equally strong differ">
          disputed
        </Disputed>}{machine.ram}
      </Figure>
    case 'chips':
      return <Figure data-title={title}>{machine.chips > 0
        ? <Link to={`/bench/${String(machine.id)}/take-stock`}>{machine.chips}</Link> : 0}</Figure>
    default: {
      const value = { year: machine.eraFrom, rom: machine.rom }[key]
      return isFigure ? <Figure data-title={title}>{value}</Figure> : <td>{value}</td>
    }
  }
}

const Disputed = styled.span`
  display: block;
  font: 12px/1 ${font.body};
`
const Name = styled.span`
  display: flex;
  align-items: start;
  gap: ${space(1)};
`
const Accession = styled.td`
  font: 14px/24px ${font.mono};
  white-space: nowrap;
`
const Wide = styled(ListTable)`
  table-layout: fixed;
  min-width: 860px;
  input { width: 18px; height: 18px; accent-color: ${color.slate}; }
  /* On a phone a card for each machine: its name, where it is, then the figures in a row, each with its title. */
  @media (max-width: 600px) {
    min-width: 0;
    display: block;
    colgroup { display: none; }
    thead { display: block; border-bottom: 1px solid ${color.line}; }
    thead tr { display: flex; flex-wrap: wrap; gap: 0 ${space(2)}; padding: 4px 0; }
    thead th { padding: 2px 0; border: none; width: auto; }
    tbody { display: block; }
    tbody tr { display: grid; grid-template-columns: 44px minmax(0, 1fr); padding: ${space(1)} 0;
      border-bottom: 1px solid ${color.line}; }
    tbody tr[aria-hidden] { padding: 0; border: none; }
    tbody td { grid-column: 2; padding: 1px 0; border: none; }
    tbody td:first-child { grid-column: 1; grid-row: 1 / span 2; }
    tbody td[data-title] { text-align: left; display: flex; gap: ${space(1)}; }
    tbody td[data-title]::before { content: attr(data-title); min-width: 84px; color: ${color.faint};
      font-family: ${font.body}; }
    tbody td:empty { display: none; }
  }
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
