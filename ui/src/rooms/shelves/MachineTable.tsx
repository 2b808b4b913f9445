import { Link } from 'react-router'
import styled from 'styled-components'

import type { Schemas } from '../../api/client'
import { Figure, ListTable, Scroll } from '../../kit/ListTable'
import { font } from '../../theme'

/** Machines as a table; a row leads to the bench. */
export function MachineTable({ machines }: { machines: Schemas['ListedMachine'][] }) {
  return (
    <Scroll>
      <Wide>
        <thead>
          <tr>
            <th>Accession</th>
            <th>Machine</th>
            <th>Maker and model</th>
            <th>Place</th>
            <Figure as="th">Boards</Figure>
            <Figure as="th">Chips</Figure>
            <Figure as="th">Unknown</Figure>
            <Figure as="th">RAM, KB</Figure>
            <Figure as="th">ROM, KB</Figure>
          </tr>
        </thead>
        <tbody>
          {machines.map((machine) => (
            <tr key={machine.id}>
              <Accession>{machine.accession}</Accession>
              <td><Link to={`/bench/${String(machine.id)}`}>{machine.name}</Link></td>
              <td>{[machine.maker, machine.model].filter(Boolean).join(' ')}</td>
              <td>{machine.place}</td>
              <Figure>{machine.boards}</Figure>
              <Figure>{machine.chips}</Figure>
              <Figure $warn={machine.unidentified > 0}>{machine.unidentified || ''}</Figure>
              <Figure>{machine.ram}</Figure>
              <Figure>{machine.rom}</Figure>
            </tr>
          ))}
        </tbody>
      </Wide>
    </Scroll>
  )
}

const Accession = styled.td`
  font: 14px/24px ${font.mono};
  white-space: nowrap;
`
const Wide = styled(ListTable)`
  td:nth-child(2) { max-width: 340px; }
`
