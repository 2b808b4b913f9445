import styled from 'styled-components'

import type { Sign, SignTable as Table } from '../../api/signs'
import { Scroll, StackedTable, Whole } from '../../kit/ListTable'
import { Mark } from '../../kit/Mark'
import { Faint } from '../../kit/Page'
import { font } from '../../theme'
import { LampRow } from './LampRow'

/** What a model or a card shows, and what each sign means. */
export function SignTable({ table }: { table: Table }) {
  return (
    <>
      {(table.radix || table.fields) && <p><Faint>{[table.radix && `Codes are ${table.radix}`,
        table.fields && `cut into ${table.fields}`].filter(Boolean).join(', ')}.</Faint></p>}
      <Scroll>
        <StackedTable>
          <thead><tr><th>Sign</th><th>During</th><th>Means</th><th>Look at next</th><th>By</th></tr></thead>
          <tbody>
            {table.signs.map((sign) => (
              <tr key={sign.line}>
                <Whole><SignShown sign={sign} row={table.row} /></Whole>
                <td>{sign.state || 'any time'}</td>
                <td>{sign.expected && <><Mark kind="done" /> expected: </>}{sign.meaning}<Cards sign={sign} /></td>
                <td>{sign.next || <Faint>nothing is told</Faint>}</td>
                <td>{sign.source || <Faint>recalled</Faint>}</td>
              </tr>
            ))}
          </tbody>
        </StackedTable>
      </Scroll>
    </>
  )
}

/** What is shown: lamps as they sit, else the words of it. */
export function SignShown({ sign, row }: { sign: Pick<Sign, 'kind' | 'shown' | 'lit'>; row: string[] }) {
  return sign.lit ? <LampRow lit={sign.lit} names={row} />
    : <><Faint>{sign.kind}</Faint> <Said>{sign.shown}</Said></>
}

/** For which cards a sign is. */
export function Cards({ sign }: { sign: Pick<Sign, 'with' | 'without'> }) {
  const told = [sign.with.length > 0 && `with ${sign.with.join(', ')}`,
    sign.without.length > 0 && `without ${sign.without.join(', ')}`].filter(Boolean).join(', ')
  return told && <><br /><Faint>{told}</Faint></>
}

export const Said = styled.span`
  font: 15px ${font.mono};
  overflow-wrap: anywhere;
  white-space: pre-line;
`
