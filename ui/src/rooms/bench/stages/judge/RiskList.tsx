import { Link } from 'react-router'
import styled from 'styled-components'

import type { Risk } from '../../../../api/judge'
import { Figure, StackedTable } from '../../../../kit/ListTable'
import { Mark } from '../../../../kit/Mark'
import { Faint } from '../../../../kit/Page'
import { spotAddress } from '../../../../kit/spot'
import { color, space } from '../../../../theme'

/**
 * Parts that age, in the order in which to look at them: how many looks were missed as a bar, and why in a sentence on
 * demand. Each leads to its machine and spot.
 */
export function RiskList({ risks, withMachine, most }: { risks: Risk[]; withMachine?: boolean
  /** What a full bar is, where several lists are to be compared. */
  most?: number }) {
  if (risks.length === 0) return null
  const full = most ?? Math.max(1, ...risks.map(({ overdueRatio }) => overdueRatio))
  return (
    <Table $isAlone={!withMachine}>
      <thead><tr>{withMachine && <th>Machine</th>}<th>Part</th><th>Looks missed</th>
        <Figure as="th" title="Missed looks times what happens: an order, not a probability">Rank</Figure></tr></thead>
      <tbody>
        {risks.map((risk) => (
          <tr key={`${String(risk.machine.id)} ${String(risk.assemblyId)} ${String(risk.line)} ${risk.class}`}>
            {withMachine && <td><Link to={placeOf(risk)}>{risk.machine.accession || 'Stores:'} {risk.machine.name}</Link>
              {risk.machine.place && <><br /><Faint>{risk.machine.place}</Faint></>}</td>}
            <td><Spot risk={risk} /><details><summary>{risk.name}</summary>{risk.why}</details></td>
            <td><Missed><Track><Bar $isDue={risk.isDue}
              style={{ width: `${String(Math.min(100, (risk.overdueRatio / full) * 100))}%` }} /></Track>
              <span><Mark kind={risk.isDue ? 'attention' : 'done'} /> {risk.overdueRatio.toFixed(1)}</span></Missed></td>
            <Figure>{risk.rank.toFixed(1)}</Figure>
          </tr>
        ))}
      </tbody>
    </Table>
  )
}

/** Where one goes to look: a board in no machine lies in the stores. */
export const placeOf = ({ machine, assemblyId }: Pick<Risk, 'machine' | 'assemblyId'>) =>
  machine.id > 0 ? `/bench/${String(machine.id)}/judge` : `/stores/${String(assemblyId)}`

function Spot({ risk }: { risk: Risk }) {
  const words = risk.place === risk.board ? risk.board : `${risk.board}, ${risk.place}`
  return risk.line > 0 ? <Link to={spotAddress(risk.machine.id, { assembly: risk.assemblyId, line: risk.line })}>
    {words}</Link> : <strong>{words}</strong>
}

// Without the machine several lists stand below each other, and their columns should, too.
const Table = styled(StackedTable)<{ $isAlone: boolean }>`
  table-layout: ${({ $isAlone }) => ($isAlone ? 'fixed' : 'auto')};
  th:nth-child(1) { width: ${({ $isAlone }) => ($isAlone ? '50%' : 'auto')}; }
  td:first-child { min-width: 140px; }
  /* Without its heading the rank says nothing; the order says it. */
  @media (max-width: 600px) { && td:last-child { display: none; } }
  summary { cursor: pointer; color: ${color.faint}; min-height: 24px; }
  svg { vertical-align: -3px; }
`
const Missed = styled.div`
  display: grid;
  grid-template-columns: minmax(60px, 160px) max-content;
  gap: ${space(1)};
  align-items: center;
`
const Track = styled.span`
  display: block;
  height: 12px;
  background: ${color.line};
`
const Bar = styled.span<{ $isDue: boolean }>`
  display: block;
  height: 12px;
  min-width: 2px;
  background: ${({ $isDue }) => ($isDue ? color.amber : color.reed)};
`
