import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'

import type { FittedAssembly } from '../../../../../api/assemblies'
import type { Schemas } from '../../../../../api/client'
import { fittingsQuery } from '../../../../../api/moves'
import { messageOf } from '../../../../../api/problem'
import { Notice } from '../../../../../kit/Notice'
import { color, font, space } from '../../../../../theme'

/** Where an assembly has been, as a line of dates, today's place first. */
export function Whereabouts({ assembly }: { assembly: FittedAssembly }) {
  const fittings = useQuery(fittingsQuery(assembly.id, assembly.version))
  return (
    <>
      <h3>Where it has been</h3>
      {fittings.error && <Notice tone="stop" word="Not read.">{messageOf(fittings.error)}</Notice>}
      <Line>
        {fittings.data?.map((fitting) => (
          <li key={fitting.id}>
            <time dateTime={fitting.since}>{fitting.since}</time>
            <span><Place fitting={fitting} />{fitting.note && `: ${fitting.note}`}</span>
          </li>
        ))}
      </Line>
    </>
  )
}

function Place({ fitting }: { fitting: Schemas['Fitting'] }) {
  if (fitting.lentTo) return <>lent to {fitting.lentTo}{fitting.due && `, to be back by ${fitting.due}`}</>
  if (!fitting.machineId) return <>{fitting.place}</>
  return <><Link to={`/bench/${String(fitting.machineId)}/take-stock`}>{fitting.accession}</Link>
    {fitting.slot && `, slot ${fitting.slot}`}</>
}

const Line = styled.ol`
  li {
    position: relative;
    display: grid;
    grid-template-columns: 96px minmax(0, 1fr);
    gap: ${space(2)};
    padding: 2px 0 2px ${space(2)};
    border-left: 2px solid ${color.line};
    overflow-wrap: anywhere;
  }
  li::before {
    content: '';
    position: absolute;
    left: -6px;
    top: 9px;
    width: 10px;
    height: 10px;
    border: 2px solid ${color.slate};
    border-radius: 50%;
    background: ${color.sheet};
  }
  li:first-child::before { background: ${color.slate}; }
  time { font: 14px/24px ${font.mono}; color: ${color.faint}; }
`
