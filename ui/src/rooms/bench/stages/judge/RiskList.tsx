import { Link } from 'react-router'
import styled from 'styled-components'

import type { Risk } from '../../../../api/judge'
import { Mark } from '../../../../kit/Mark'
import { Faint } from '../../../../kit/Page'
import { color, font, space } from '../../../../theme'

/** Parts that age, in the order in which to look at them; each leads to its machine and spot. */
export function RiskList({ risks, withMachine }: { risks: Risk[]; withMachine?: boolean }) {
  return (
    <List>
      {risks.map((risk) => (
        <li key={`${String(risk.machine.id)} ${String(risk.assemblyId)} ${String(risk.line)} ${risk.class}`}>
          <Rank title="Missed looks times what happens: an order, not a probability">{risk.rank.toFixed(1)}</Rank>
          <span>
            <Mark kind={risk.isDue ? 'attention' : 'done'} />{' '}
            {withMachine
              && <><Link to={placeOf(risk)}>{risk.machine.accession || 'Stores:'} {risk.machine.name}</Link> </>}
            <Spot risk={risk} /> {withMachine && risk.machine.place && <Faint>({risk.machine.place})</Faint>}
            <br />{risk.why}
          </span>
        </li>
      ))}
    </List>
  )
}

/** Where one goes to look: a board in no machine lies in the stores. */
export const placeOf = ({ machine, assemblyId }: Pick<Risk, 'machine' | 'assemblyId'>) =>
  machine.id > 0 ? `/bench/${String(machine.id)}/judge` : `/stores/${String(assemblyId)}`

function Spot({ risk }: { risk: Risk }) {
  const words = risk.place === risk.board ? risk.board : `${risk.board}, ${risk.place}`
  return risk.line > 0 && risk.machine.id > 0 ? <Link to={`/bench/${String(risk.machine.id)}/take-stock`}
    state={{ spot: { assembly: risk.assemblyId, line: risk.line } }}>{words}</Link> : <strong>{words}</strong>
}

const List = styled.ol`
  li { display: grid; grid-template-columns: 64px minmax(0, 1fr); gap: ${space(1)}; padding: 6px 0;
    border-bottom: 1px dotted ${color.line}; overflow-wrap: anywhere; }
  svg { vertical-align: -3px; }
`
const Rank = styled.span`
  color: ${color.faint};
  font: 600 15px/24px ${font.mono};
  text-align: right;
`
