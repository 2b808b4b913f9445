import styled from 'styled-components'

import type { Population } from '../../../../api/setup'
import { Figure, ListTable, Scroll } from '../../../../kit/ListTable'
import { Faint } from '../../../../kit/Page'
import { color, font, space } from '../../../../theme'

/** What could stand in the sockets, the best first, with how jumpers are set; and all that may stand, as a table. */
export function ModulePlans({ all }: { all: Population }) {
  const { plans, why, table, banks, isWhole, stock } = all
  const hasJumpers = table.some(({ jumpers }) => jumpers.length > 0)
  return (
    <>
      {plans.length === 0 && why && <p>{why}.</p>}
      {plans.map((plan, i) => (
        <Plan key={i} aria-label={`Plan of ${plan.amount}`}>
          <h3>{plan.amount} <Faint>{plan.changes === 0 ? 'as it stands' : `${String(plan.changes)} ${plan.changes === 1 ? 'socket changes'
            : 'sockets change'}`}{plan.buy.length > 0 ? `; to buy: ${plan.buy.join(', ')}` : ''}</Faint></h3>
          <Sockets>{plan.sockets.map(({ socket, module, changed }) => <li key={socket} data-changed={changed || undefined}>
            <small>{socket}</small>{module || 'empty'}</li>)}</Sockets>
          <Jumpers set={plan.jumpers} />
        </Plan>
      ))}
      {table.length > 0 && <details>
        <summary>What may stand at all{isWhole ? '' : ', the smallest of it'}</summary>
        <Scroll>
          <ListTable>
            <thead><tr><th>Memory</th>{banks.map((bank) => <th key={bank}>bank {bank}</th>)}{hasJumpers && <th>Jumpers</th>}</tr></thead>
            <tbody>{table.map(({ amount, sizes, jumpers }, i) => <tr key={i}><Figure>{amount}</Figure>
              {sizes.map((size, n) => <td key={n}>{size || '-'}</td>)}{hasJumpers && <td>{jumpers.join(', ')}</td>}</tr>)}</tbody>
          </ListTable>
        </Scroll>
      </details>}
      <p><Faint>{stock === 0 ? 'No module lies free in the stores.' : `${String(stock)} modules lie free in the stores.`}</Faint></p>
    </>
  )
}

/** How jumpers are set, drawn as their pins with the ones that are joined. */
function Jumpers({ set }: { set: string[] }) {
  if (set.length === 0) return null
  return (
    <Set>
      {set.map((one) => {
        const [name = '', at = ''] = one.split(' at ')
        const joined = at.split('-')
        const isPair = /^[1-3]-[1-3]$/.test(at)
        return (
          <li key={one}>
            <code>{name}</code>
            {isPair && <Pins role="img" aria-label={one}>{['1', '2', '3'].map((pin) => <i key={pin} data-in={joined.includes(pin) || undefined}>
              {pin}</i>)}</Pins>}
            <span>{at}</span>
          </li>
        )
      })}
    </Set>
  )
}

const Plan = styled.section`
  padding: ${space(1)};
  border: 1px solid ${color.line};
  background: ${color.sheet};
  h3 { font-size: 16px; }
`
const Sockets = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  li { display: flex; flex-direction: column; min-width: 88px; padding: 4px ${space(1)}; border: 1px solid
    ${color.line};
    font: 14px ${font.mono}; }
  li[data-changed] { border-color: ${color.slate}; background: ${color.slateGround}; }
  small { color: ${color.faint}; }
`
const Set = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(2)};
  margin-top: ${space(1)};
  li { display: flex; align-items: center; gap: ${space(1)}; }
  code { font: 14px ${font.mono}; }
`
const Pins = styled.span`
  display: inline-flex;
  i { width: 20px; border: 1px solid ${color.edge}; color: ${color.faint}; font: 12px/18px ${font.mono};
    text-align: center; }
  i[data-in] { border-color: ${color.slate}; background: ${color.slate}; color: ${color.onSlate}; }
`
