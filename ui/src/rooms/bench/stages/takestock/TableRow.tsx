import { useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import styled from 'styled-components'

import { messageOf } from '../../../../api/problem'
import { type LineState, type SheetRecord, writeLine } from '../../../../api/reckoning'
import { Mark } from '../../../../kit/Mark'
import { color, font, space, target } from '../../../../theme'
import { marks } from './lineMarks'

type Props = {
  record: SheetRecord
  state?: LineState
  readOnly: boolean
  /** Where it stands among the rows, and what takes its height; neither for a new one. */
  index?: number
  measure?: (row: HTMLElement | null) => void
  /** The keyboard is in it. */
  onEnter?: (index: number) => void
  /** Takes the row as a line; false when the line of the text is another by now. */
  onWritten: (line: string) => boolean
}

const names = { parts: 'Parts', marking: 'Marking', findings: 'Findings', comment: 'Comment', purpose: 'For',
  mount: 'Mount', new: 'New since' }
const purposes: SheetRecord['purpose'][] = ['', 'main', 'picture', 'cache', 'shared', 'card', 'parity']
const mounts: SheetRecord['mount'][] = ['', 'socket', 'solder', 'empty']
type TextField = 'parts' | 'marking' | 'new' | 'findings' | 'comment'

/** A row of the table. Enter, or leaving the row, writes it as a line; what cannot be written stays typed. */
export function TableRow({ record, state, readOnly, index = -1, measure, onEnter, onWritten }: Props) {
  const [typed, setTyped] = useState<Partial<SheetRecord>>({})
  const [wrong, setWrong] = useState('')
  const row = { ...record, ...typed }
  const isNew = record.line === 0

  const underWay = useRef<SheetRecord>(undefined)

  const write = async (changed: SheetRecord) => {
    // Enter and leaving the row may both ask for the same line.
    if (sameFields(record, changed) || changed.parts.trim() === '' || (underWay.current && sameFields(underWay.current,
      changed))) return
    underWay.current = changed
    if (isNew) setTyped({}) // the next line can be typed at once
    try {
      if (onWritten(await writeLine(changed))) {
        // What was typed since stays. Shown before the way is free: a row left in between would be written again.
        flushSync(() => {
          setTyped((now) => Object.fromEntries(Object.entries(now).filter(([field, value]) =>
            changed[field as keyof SheetRecord] !== value)))
          setWrong('')
        })
      } else {
        setWrong('The line was changed meanwhile. Look at it, then press Enter again.')
      }
    } catch (error) {
      if (isNew) setTyped((now) => (Object.keys(now).length > 0 ? now : changed))
      setWrong(`${writtenShort(changed)}: ${messageOf(error)}`)
    } finally {
      underWay.current = undefined
    }
  }
  const name = (field: keyof typeof names) => (isNew ? `${names[field]} of a new line`
    : `${names[field]}, line ${String(record.line)}`)
  const cell = (field: TextField) => (
    <td>
      <Cell
        aria-label={name(field)}
        value={row[field] ?? ''}
        readOnly={readOnly}
        aria-invalid={wrong !== ''}
        spellCheck={false}
        onChange={(event) => { setTyped({ ...typed, [field]: event.target.value }) }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            void write(row)
            // A new line follows a new line.
            if (isNew) event.currentTarget.closest('tr')?.querySelector('input')?.focus()
          }
          if (event.key === 'Escape') { setTyped({}); setWrong('') }
        }}
      />
    </td>
  )
  const choice = <Field extends 'purpose' | 'mount'>(field: Field, options: SheetRecord[Field][]) => (
    <td>
      <Drop
        aria-label={name(field)}
        value={row[field]}
        disabled={readOnly}
        onChange={(event) => {
          const changed = { ...typed, [field]: event.target.value as SheetRecord[Field] }
          setTyped(changed)
          void write({ ...record, ...changed })
        }}
      >
        {options.map((option) => <option key={option} value={option}>{option}</option>)}
      </Drop>
    </td>
  )
  return (
    <>
      <tr
        ref={measure}
        data-index={index}
        data-line={record.line}
        aria-rowindex={isNew ? undefined : index + 2}
        onFocus={() => { onEnter?.(index) }}
        onBlur={(event) => {
          if (!event.currentTarget.contains(event.relatedTarget)) void write(row)
        }}
      >
        <Number>{isNew ? 'new' : record.line}</Number>
        {cell('parts')}
        {cell('marking')}
        <What>{state && <><Mark kind={marks[state.state]} /> {state.text}</>}</What>
        {choice('purpose', purposes)}
        {choice('mount', mounts)}
        {cell('new')}
        {cell('findings')}
        {cell('comment')}
      </tr>
      {wrong && <tr><Wrong colSpan={9} role="alert">{wrong}</Wrong></tr>}
    </>
  )
}

const sameFields = (a: SheetRecord, b: SheetRecord) =>
  (Object.keys(a) as (keyof SheetRecord)[]).every((field) => a[field] === b[field])

const writtenShort = ({ parts, marking }: SheetRecord) => [parts, marking].filter(Boolean).join(' ')

const Cell = styled.input`
  width: 100%;
  min-height: ${target.small};
  padding: 0 ${space(1)};
  border: 1px solid transparent;
  background: transparent;
  font: 14px ${font.mono};
  &:hover:not(:read-only) { border-color: ${color.line}; }
  &:focus { border-color: ${color.slate}; outline: 1px solid ${color.slate}; }
  &[aria-invalid='true'] { border-color: ${color.rust}; }
`
const Drop = styled.select`
  width: 100%;
  min-height: ${target.small};
  border: 1px solid transparent;
  background: ${color.sheet};
  font: 14px ${font.mono};
  &:hover { border-color: ${color.line}; }
`
const Number = styled.td`
  padding: 0 ${space(1)};
  color: ${color.faint};
  text-align: right;
`
const What = styled.td`
  && { padding: 4px ${space(1)}; font: 14px/1.4 ${font.body}; color: ${color.faint}; }
  svg { vertical-align: -3px; }
`
const Wrong = styled.td`
  && { padding: 4px ${space(1)}; font-family: ${font.body}; color: ${color.rust}; background: ${color.rustGround}; }
`
