import { Fragment, useEffect, useEffectEvent, useRef, useState } from 'react'
import styled from 'styled-components'

import type { SheetRecord } from '../../../../api/reckoning'
import { Faint } from '../../../../kit/Page'
import type { BoardReckoning } from '../../../../features/reckoning/useReckoning'
import { GapRow, useVirtualRows } from '../../../../kit/VirtualRows'
import { color, font, space } from '../../../../theme'
import { TableRow } from './TableRow'
import { type SheetDraft, useDraftPart } from './useSheetDraft'

type Props = {
  title: string
  draft: SheetDraft
  reckoned: BoardReckoning | undefined
  spot: { line: number } | undefined
  readOnly: boolean
}

/** The sheet as a table of its records. A changed row is written back as its line of the text. */
export function SheetTable({ title, draft, reckoned, spot, readOnly }: Props) {
  const text = useDraftPart(draft, (state) => state.text)
  const records = reckoned?.records ?? []
  // The row that has the keyboard is always drawn: the one that was entered, or the one that was asked for since.
  const [entered, setEntered] = useState<{ spot: Props['spot']; index: number }>()
  const asked = spot ? records.findIndex((record) => record.line === spot.line) : -1
  const scroll = useRef<HTMLDivElement>(null)
  const { box, drawn, gapBefore, gapAfter, measure, scrollTo } = useVirtualRows(records.length, 35,
    entered && entered.spot === spot ? entered.index : asked)
  const show = useEffectEvent((line: number) => {
    if (asked < 0) return
    scrollTo(asked)
    scroll.current?.querySelector<HTMLElement>(`[data-line="${String(line)}"] input`)?.focus({ preventScroll: true })
  })
  useEffect(() => { if (spot) show(spot.line) }, [spot])

  if (!reckoned) return null
  const stateOf = new Map(reckoned.lines.map((state) => [state.line, state]))
  // A row speaks of a line of the text that was reckoned. Where that line is another by now, the
  // row must not be written over it.
  const replaceLine = (line: number, written: string) => {
    const lines = draft.state.text.split('\n')
    if (lines[line - 1] !== reckoned.text.split('\n')[line - 1]) return false
    lines[line - 1] = written
    draft.type(lines.join('\n'))
    return true
  }
  const addLine = (written: string) => {
    draft.type(text === '' ? written : `${text.replace(/\n$/, '')}\n${written}`)
    return true
  }
  const left = reckoned.lines.filter(({ state }) => state === 'problem' || state === 'text').length

  return (
    <>
      <Scroll ref={scroll}>
        <Table aria-label={`Records of ${title}`} aria-busy={reckoned.text !== text}
          aria-rowcount={records.length + 1}>
          <thead>
            <tr aria-rowindex={1}>
              {columns.map(({ name, width }) => <th key={name} scope="col" style={{ width }}>{name}</th>)}
            </tr>
          </thead>
          <tbody ref={box}>
            {drawn.map((index) => {
              const record = records[index]
              return record && <Fragment key={record.line}>
                <GapRow height={gapBefore(index)} columns={columns.length} />
                <TableRow
                  index={index}
                  measure={measure}
                  record={record}
                  state={stateOf.get(record.line)}
                  readOnly={readOnly}
                  onEnter={(at) => { setEntered({ spot, index: at }) }}
                  onWritten={(written) => replaceLine(record.line, written)}
                />
              </Fragment>
            })}
            <GapRow height={gapAfter} columns={columns.length} />
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
