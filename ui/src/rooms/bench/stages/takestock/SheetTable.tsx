import { useEffect, useRef } from 'react'
import styled from 'styled-components'

import type { SheetRecord } from '../../../../api/reckoning'
import { Faint } from '../../../../kit/Page'
import type { BoardReckoning } from '../../../../reckoning/useReckoning'
import { color, font, space } from '../../../../theme'
import { TableRow } from './TableRow'

type Props = {
  title: string
  text: string
  reckoned: BoardReckoning | undefined
  spot: { line: number } | undefined
  readOnly: boolean
  onType: (text: string) => void
}

/** The sheet as a table of its records. A changed row is written back as its line of the text. */
export function SheetTable({ title, text, reckoned, spot, readOnly, onType }: Props) {
  const table = useRef<HTMLTableElement>(null)
  useEffect(() => {
    const row = spot && table.current?.querySelector<HTMLElement>(`[data-line="${String(spot.line)}"]`)
    row?.querySelector<HTMLElement>('input')?.focus()
  }, [spot])

  if (!reckoned) return null
  // A row speaks of a line of the text that was reckoned. Where that line is another by now, the
  // row must not be written over it.
  const replaceLine = (line: number, written: string) => {
    const lines = text.split('\n')
    if (lines[line - 1] !== reckoned.text.split('\n')[line - 1]) return false
    lines[line - 1] = written
    onType(lines.join('\n'))
    return true
  }
  const addLine = (written: string) => {
    onType(text === '' ? written : `${text.replace(/\n$/, '')}\n${written}`)
    return true
  }
  const left = reckoned.lines.filter(({ state }) => state === 'problem' || state === 'text').length

  return (
    <>
      <Scroll>
        <Table ref={table} aria-label={`Records of ${title}`} aria-busy={reckoned.text !== text}>
          <thead>
            <tr>
              {columns.map(({ name, width }) => <th key={name} scope="col" style={{ width }}>{name}</th>)}
            </tr>
          </thead>
          <tbody>
            {reckoned.records.map((record) => (
              <TableRow
                key={record.line}
                record={record}
                state={reckoned.lines.find(({ line }) => line === record.line)}
                readOnly={readOnly}
                onWritten={(written) => replaceLine(record.line, written)}
              />
            ))}
            {!readOnly && <TableRow key="new" record={nothing} readOnly={false} onWritten={addLine} />}
          </tbody>
        </Table>
      </Scroll>
      {left > 0 && <Faint>{left === 1 ? '1 line stands' : `${String(left)} lines stand`} only in the text: it could not
        be read as a record.</Faint>}
    </>
  )
}

const columns = [
  { name: 'Line', width: '44px' },
  { name: 'Parts', width: '100px' },
  { name: 'Marking', width: '180px' },
  { name: 'What it is', width: '184px' },
  { name: 'For', width: '88px' },
  { name: 'Mount', width: '84px' },
  { name: 'New since', width: '84px' },
  { name: 'Findings', width: '128px' },
  { name: 'Comment', width: '112px' },
]

const nothing: SheetRecord = { line: 0, parts: '', marking: '', purpose: '', mount: '', new: '', findings: '',
  comment: '' }

const Scroll = styled.div`
  overflow-x: auto;
  border: 1px solid ${color.line};
  background: ${color.sheet};
`
const Table = styled.table`
  width: 100%;
  min-width: 1004px;
  table-layout: fixed;
  border-collapse: collapse;
  th { padding: 4px ${space(1)}; border-bottom: 1px solid ${color.line}; color: ${color.faint}; font-size: 14px;
    font-weight: 600; text-align: left; }
  td { border-bottom: 1px solid ${color.line}; font: 14px/1.4 ${font.mono}; }
`
