import styled from 'styled-components'

import type { Reckoned } from '../../../../api/reckoning'
import { Mark } from '../../../../kit/Mark'
import { color, space } from '../../../../theme'

/** What would come of a text: its boards, what they amount to, what to take care of, and what is wrong in it. */
export function DryRun({ reckoned, isPlay }: { reckoned: Reckoned; isPlay?: boolean }) {
  return (
    <Result role="status">
      <p>
        {isPlay ? 'Read' : 'Would add'} {reckoned.assemblies.length === 1 ? '1 board' : `${String(reckoned.assemblies.length)} boards`}:{' '}
        {reckoned.assemblies.map(({ title, entries }) =>
          `${title || 'Board'} (${String(entries.length)} lines read)`).join(', ')}.
      </p>
      <ul>
        {reckoned.verdicts.filter(({ key }) => key !== 'problems').map(({ key, label, value, caution }) =>
          <li key={key}>{label}: {value}{caution && <Caution><Mark kind="attention" /> {caution}</Caution>}</li>)}
      </ul>
      {reckoned.problems.length > 0 && (
        <Problems>
          {reckoned.problems.map(({ line, column, message }) => (
            <li key={`${String(line)} ${String(column)}`}><Mark kind="problem" /> line {line},
              column {column}: {message}</li>
          ))}
        </Problems>
      )}
    </Result>
  )
}

const Result = styled.div`
  max-height: 240px;
  overflow: auto;
  padding-left: ${space(1)};
  border-left: 3px solid ${color.line};
  font-size: 15px;
`
const Caution = styled.strong`
  display: block;
  font-weight: 400;
  color: ${color.amber};
  svg { vertical-align: -3px; }
`
const Problems = styled.ul`
  color: ${color.rust};
  svg { vertical-align: -3px; }
`
