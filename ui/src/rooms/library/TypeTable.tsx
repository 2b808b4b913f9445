import styled from 'styled-components'

import type { LibraryType } from '../../api/library'
import { Button } from '../../kit/Button'
import { Figure, ListTable, Scroll } from '../../kit/ListTable'
import { font } from '../../theme'

/** Types as a table; a number pressed shows where the type occurs. */
export function TypeTable({ types, chosen, onChoose }: { types: LibraryType[]; chosen: string;
  onChoose: (number: string) => void }) {
  return (
    <Scroll>
      <ListTable>
        <thead>
          <tr>
            <th>Number</th>
            <th>What it does</th>
            <th>Class</th>
            <Figure as="th">Words</Figure>
            <Figure as="th">Bits</Figure>
            <th>Package</th>
            <Figure as="th">+5 V, mA</Figure>
            <Figure as="th">Parts</Figure>
            <th>Whose</th>
          </tr>
        </thead>
        <tbody>
          {types.map((type) => (
            <tr key={type.number} aria-selected={type.number === chosen}>
              <Number><Button $tone="quiet" onPress={() => { onChoose(type.number) }}>{type.number}</Button></Number>
              <td>{[type.function, type.family].filter(Boolean).join(', ')}</td>
              <td>{type.class}</td>
              <Figure>{type.words || ''}</Figure>
              <Figure>{type.bits || ''}</Figure>
              <td>{type.package}</td>
              <Figure>{type.typicalMilliamps || ''}</Figure>
              <Figure>{type.occurrences || ''}</Figure>
              <td>{type.own ? 'own' : 'built in'}</td>
            </tr>
          ))}
        </tbody>
      </ListTable>
    </Scroll>
  )
}

const Number = styled.td`
  && { padding: 0; }
  button { font-family: ${font.mono}; }
`
