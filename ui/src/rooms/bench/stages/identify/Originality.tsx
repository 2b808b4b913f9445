import { Link } from 'react-router'

import { type FittedAssembly, useChangeAssembly } from '../../../../api/assemblies'
import type { Dated } from '../../../../api/identify'
import { useAccount } from '../../../../api/session'
import { Choice } from '../../../../kit/Field'
import { ListTable, Scroll } from '../../../../kit/ListTable'
import { NotSaved } from '../../../../kit/NotSaved'
import { Part } from '../../../../kit/Part'
import { atSpot } from '../../../../kit/spot'

type One = Dated['assemblies'][number]

const words: Record<One['own'], string> = { unknown: 'not decided', factory: 'factory', period: 'of the period',
  later: 'later', modern: 'modern' }
const options = Object.entries(words).map(([value, text]) => ({ value: value as One['own'], text }))

/** From when each assembly is: by its dates, and by what somebody decided, which counts. */
export function Originality({ dated, assemblies }: { dated: Dated; assemblies: FittedAssembly[] }) {
  if (dated.assemblies.length === 0) return null
  return (
    <Part title="What is original" faint="What somebody decided counts; else what the dates say.">
      <Scroll>
        <ListTable>
          <thead><tr><th>Assembly</th><th>By its dates</th><th>Decided</th><th>Counts</th></tr></thead>
          <tbody>
            {dated.assemblies.map((one) =>
              <Row key={one.id} one={one} assembly={assemblies.find(({ id }) => id === one.id)} />)}
          </tbody>
        </ListTable>
      </Scroll>
    </Part>
  )
}

function Row({ one, assembly }: { one: One; assembly: FittedAssembly | undefined }) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const change = useChangeAssembly(one.id)
  return (
    <tr>
      <td>{assembly ? <Link to={atSpot('../take-stock', { assembly: one.id, line: 1 })} relative="path">{one.title}</Link> : one.title}</td>
      <td><strong>{words[one.reckoned.originality]}</strong>: {one.reckoned.why}</td>
      <td>
        {mayWrite && assembly ? (
          <Choice
            label={<span className="only-read">Decided about {one.title}</span>}
            value={one.own}
            options={options}
            onChange={(fit) => { change.mutate({ kind: assembly.kind, title: assembly.title, part: assembly.part,
              rev: assembly.rev, serial: assembly.serial, slot: assembly.slot, purpose: assembly.purpose, fit,
                version: assembly.version }) }}
          />
        ) : words[one.own]}
        <NotSaved error={change.error} />
      </td>
      <td style={{ whiteSpace: 'nowrap' }}><strong>{words[one.counts]}</strong></td>
    </tr>
  )
}
