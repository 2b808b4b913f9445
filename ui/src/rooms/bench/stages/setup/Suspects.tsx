import { Link } from 'react-router'

import type { Memory } from '../../../../api/diagnosis'
import { Figure, Scroll, StackedTable } from '../../../../kit/ListTable'
import { Mark } from '../../../../kit/Mark'
import { Faint } from '../../../../kit/Page'

type Test = Memory['tests'][number]

const kinds: Record<Test['suspects'][number]['kind'], string> = { common: 'what all share', 'address-line': 'address line',
  'bank-select': 'select of the bank', 'data-line': 'data line', chip: 'chip' }

/** What a memory test leads to: suspects, those that explain most first, with where each sits. */
export function Suspects({ test, machineId, isLaidOut }: { test: Test; machineId: number; isLaidOut: boolean }) {
  const bench = `/bench/${String(machineId)}`
  return (
    <>
      <p><Mark kind="problem" /> <Link to={`${bench}/power-up?capture=${String(test.captureId)}`}>{test.on}</Link>:{' '}
        {test.failed === 1 ? 'one place failed' : `${String(test.failed)} places failed`}</p>
      {test.suspects.length > 0 && (
        <Scroll>
          <StackedTable>
            <thead><tr><th>Suspect</th><th>What it is</th><Figure as="th">Explains</Figure><th>Why</th><th>Where</th></tr></thead>
            <tbody>{test.suspects.map(({ designator, group, kind, share, why, places }) => (
              <tr key={`${kind} ${designator ?? group ?? ''}`}>
                <td><strong>{designator ?? group}</strong></td>
                <td>{kinds[kind]}</td>
                <Figure data-head="Explains">{Math.round(share * 100)} %</Figure>
                <td><Faint>{why}</Faint></td>
                <td>{designator && places.length === 0 && <Faint>on no sheet</Faint>}
                  {places.map(({ assemblyId, title, line, marking, callout }) => <div key={assemblyId}>
                    <Link to={`${bench}/take-stock?at=${String(assemblyId)}.${String(line)}`}>{title}</Link>{' '}
                    <Faint>{marking}</Faint>
                    {callout && <> <Link to={`${bench}/board-picture/${String(callout.attachmentId)}`}>number {callout.n} on
                      the picture</Link></>}</div>)}</td>
              </tr>
            ))}</tbody>
          </StackedTable>
        </Scroll>
      )}
      {isLaidOut && test.suspects.length === 0 && <p><Mark kind="unknown" /> None of its lines leads to a chip.</p>}
      {test.problems.map(({ line, why }) => <p key={`${String(line)} ${why}`}><Faint>line {line}: {why}</Faint></p>)}
    </>
  )
}
