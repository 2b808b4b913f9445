import { Link } from 'react-router'
import styled from 'styled-components'

import type { Machine } from '../../../../api/machines'
import type { Power } from '../../../../api/power'
import { gateMark, gateName, gateStates } from '../../../../features/power/states'
import { Always } from '../../../../features/upkeep/MachineUpkeep'
import { Cautions } from '../../../../kit/Cautions'
import { ListTable, Scroll, Whole } from '../../../../kit/ListTable'
import { Mark } from '../../../../kit/Mark'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { Unbroken } from '../../../../kit/Unbroken'
import { color, space } from '../../../../theme'

type Props = { machine: Machine; power: Power; mayWrite: boolean }

/** How far the machine has come, what is missing, and what comes next. Nothing of it permits power. */
export function Gate({ machine, power }: Props) {
  const at = gateStates.findIndex(({ state }) => state === power.state)
  const now = power.missing.filter(({ blocks }) => blocks === power.state)
  const later = power.missing.filter(({ blocks }) => blocks !== power.state)
  return (
    <Part title="Gate" faint="By what is recorded. It permits nothing: local rules and competent people decide">
      <Way aria-label="How far it has come">
        {gateStates.map(({ state, name, means }, i) => (
          <Station key={state} $now={i === at} aria-current={i === at ? 'step' : undefined}>
            <strong>{i === at ? <Mark kind={gateMark(power)} /> : <Mark kind={i < at ? 'done' : 'later'} />} {name}</strong>
            <span>{means}</span>
          </Station>
        ))}
      </Way>
      <Always machineId={machine.id} />
      <Cautions cautions={power.cautions.filter(({ key }) => key === 'mains' || key === 'tube')} />
      {power.next.kind !== 'none' && (
        <p><strong>Next:</strong> {nextWords[power.next.kind]} {power.next.step}: {power.next.why}.</p>
      )}
      {now.length > 0 && <Points machineId={machine.id} points={now} />}
      {later.length > 0 && (
        <details>
          <summary>{later.length === 1 ? '1 point' : `${String(later.length)} points`} missing beyond that</summary>
          <Points machineId={machine.id} points={later} />
        </details>
      )}
      {power.warnings.length > 0 && (
        <div>
          <Faint>Worth knowing:</Faint>
          <ul>{power.warnings.map((warning) => <li key={warning}><Mark kind="attention" /> {warning}</li>)}</ul>
        </div>
      )}
    </Part>
  )
}

/** Points that are missing; those that are put right in the same way at the same place stand together. */
function Points({ machineId, points }: { machineId: number; points: Power['missing'] }) {
  const together = new Map<string, Power['missing']>()
  for (const point of points) {
    const key = [point.blocks, point.do, point.path].join(' ')
    together.set(key, [...together.get(key) ?? [], point])
  }
  return (
    <Scroll>
      <ListTable>
        <thead><tr><th>Keeps it at</th><th>What is missing</th><th>What to do</th></tr></thead>
        <tbody>
          {[...together].map(([key, [first, ...others]]) => first && (
            <tr key={key}>
              <Whole>{gateName(first.blocks)}</Whole>
              <td><ul>{[first, ...others].map(({ what }, i) => <li key={`${what} ${String(i)}`}>
                <Unbroken text={what} /></li>)}</ul></td>
              <td><Link to={`/bench/${String(machineId)}/${first.path}`}>{first.do}</Link></td>
            </tr>
          ))}
        </tbody>
      </ListTable>
    </Scroll>
  )
}

const nextWords: Record<Power['next']['kind'], string> = { inspect: 'look at', measure: 'measure', remove: 'take away',
  minimum: 'try the minimum,', add: 'add', none: '' }

const Way = styled.ol`
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  @media (max-width: 600px) { grid-template-columns: minmax(0, 1fr); li:not([aria-current]) span { display: none; } }
`
const Station = styled.li<{ $now: boolean }>`
  display: flex;
  flex-direction: column;
  padding: ${space(1)};
  border-top: 3px solid ${({ $now }) => ($now ? color.slate : color.line)};
  background: ${({ $now }) => ($now ? color.slateGround : 'none')};
  svg { vertical-align: -3px; }
  span { color: ${color.faint}; font-size: 14px; line-height: 1.3; }
`
