import type { ReactNode } from 'react'

import type { Details } from '../../../api/known'
import { Faint } from '../../../kit/Page'
import { Facts } from '../../../kit/Part'

/** What is known of an assembly, read from its lines. */
export function DetailsOf({ details }: { details: Details }) {
  const rows: [string, ReactNode[]][] = [
    ['Memory', details.memory.map(({ said, purpose }) => joined(said, purpose))],
    ['Draws', details.currents.map(({ rail, said }) => `${rail} ${said}`)],
    ['Needs', details.needs.map((need) => joined(`${need.kind}: ${need.what}`, need.for))],
    ['Gives', details.gives.map(({ count, kind }) => `${String(count)} slots, ${kind}`)],
    ['Covers', details.covers],
    ['Fits', details.fits.map(({ model, difference }) => joined(model, difference))],
    ['Connectors', details.connectors.map((one) => <>
      {joined(one.name, one.kind, one.for)}
      {one.pins.length > 0 && <Faint> ({one.pins.map(({ name, signal }) => `${name} ${signal}`).join(', ')})</Faint>}
    </>)],
    ['Jumpers and switches', details.settings.map((one) =>
      `${one.name}: ${(one.positions).map(({ at, meaning }) => `${at} ${meaning}`).join(', ')}`)],
    ['Revisions', details.revisions.map((one) => joined(one.revision, one.made, one.note))],
    ['Upgrades', details.upgrades.map(({ from, to, how }) => `${from} to ${to}: ${how}`)],
    ['Documents', details.documents],
  ]
  const told = rows.filter(([, lines]) => lines.length > 0)
  if (told.length === 0) return null
  return <Facts>{told.map(([name, lines]) => <Row key={name} name={name} lines={lines} />)}</Facts>
}

function Row({ name, lines }: { name: string; lines: ReactNode[] }) {
  return <><dt>{name}</dt><dd>{lines.map((line, i) => <div key={i}>{line}</div>)}</dd></>
}

const joined = (...words: string[]) => words.filter(Boolean).join(', ')
