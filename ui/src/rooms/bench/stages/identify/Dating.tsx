import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'

import type { FittedAssembly } from '../../../../api/assemblies'
import { type Dated, datingQuery } from '../../../../api/identify'
import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { ListTable, Scroll } from '../../../../kit/ListTable'
import { Mark } from '../../../../kit/Mark'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Facts, Part } from '../../../../kit/Part'
import { font } from '../../../../theme'
import { spotAddress } from '../../../../kit/spot'
import { DatesDrawing } from './DatesDrawing'
import { Holdings } from './Holdings'
import { Originality } from './Originality'

/** When the machine was built, and what of it is from then. */
export function Dating({ machine, assemblies }: { machine: Machine; assemblies: FittedAssembly[] }) {
  const dating = useQuery(datingQuery(machine.id))
  if (dating.error) return <Notice tone="stop" word="Not dated.">{messageOf(dating.error)}</Notice>
  if (!dating.data) return null
  return (
    <>
      <When machineId={machine.id} dated={dating.data} />
      <Originality dated={dating.data} assemblies={assemblies} />
      <Holdings machine={machine} dated={dating.data} />
    </>
  )
}

function When({ machineId, dated }: { machineId: number; dated: Dated }) {
  const { result, parts } = dated
  const spotOf = (id: string) => parts.find((part) => part.id === id)?.spot
  const where = (id: string) => {
    const spot = spotOf(id)
    return spot ? <Link to={spotAddress(machineId, spot)}>{id}</Link>
      : <strong>{id}</strong>
  }
  return (
    <Part title="When it was built"
      faint={result.estimates.length > 0
        && <Estimate>{result.estimates.map(({ from, to }) => `${from} to ${to}`).join(', or ')}</Estimate>}>
      {parts.length === 0 ? (
        <p>Nothing is dated yet: write date codes behind the markings
          in <Link to={`/bench/${String(machineId)}/take-stock`}>Take stock</Link>, as 74LS245 8533, or note the date
            on the rating plate in <Link to={`/bench/${String(machineId)}/look-over`}>Look over</Link>.</p>
      ) : (
        <DatesDrawing dated={dated} />
      )}
      <Facts>
        {result.notBefore && <><dt>Not before</dt><dd>{result.notBefore}</dd></>}
        {result.notAfter && <><dt>Not after</dt><dd>{result.notAfter}</dd></>}
        {result.basis.length > 0 && <><dt>Because</dt><dd>{result.basis.join('\n')}</dd></>}
      </Facts>
      {result.conflicts.map((conflict) => <Notice key={conflict.why} tone="attention"
        word="That does not go together.">{conflict.why} <Faint>({conflict.ids.join(', ')})</Faint></Notice>)}
      {result.outliers.length > 0 && (
        <Scroll>
          <ListTable aria-label="Parts that are not of the time of the others">
            <thead><tr><th>Part</th><th>Is</th><th>Why</th></tr></thead>
            <tbody>
              {together(dated).map((group) => {
                const [first] = group
                if (!first) return null
                return (
                  <tr key={first.id}>
                    <td>{group.length > few ? <strong>{assemblyOf(dated, first.id)}</strong> : group.map(({ id }) =>
                      <div key={id}>{where(id)}</div>)}</td>
                    <td><Nowrap><Mark kind="attention" /> {first.verdict}</Nowrap></td>
                    <td>
                      {group.length > few ? (
                        <details>
                          <summary>{group.length} lines of its sheet</summary>
                          {group.map(({ id, why }) => <div key={id}>{where(id)} {why}</div>)}
                        </details>
                      ) : group.map(({ id, why }) => <div key={id}>{why}</div>)}
                    </td>
                  </tr>
                )
              })}
            </tbody>
          </ListTable>
        </Scroll>
      )}
    </Part>
  )
}

/** More outliers of one assembly than these are folded into one row. */
const few = 2

const assemblyOf = (dated: Dated, id: string) => dated.parts.find((part) => part.id === id)?.assembly ?? ''

/** The outliers of each assembly that are so in the same way, together. */
function together(dated: Dated) {
  const groups = new Map<string, Dated['result']['outliers']>()
  for (const outlier of dated.result.outliers) {
    const key = `${assemblyOf(dated, outlier.id)} ${outlier.verdict}`
    groups.set(key, [...(groups.get(key) ?? []), outlier])
  }
  return [...groups.values()]
}

const Estimate = styled.span`
  font-family: ${font.mono};
`
const Nowrap = styled.span`
  white-space: nowrap;
  svg { vertical-align: -3px; }
`
