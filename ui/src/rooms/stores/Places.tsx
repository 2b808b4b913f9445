import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'

import { placeCountsQuery } from '../../api/dossier'
import { messageOf } from '../../api/problem'
import { Figure, ListTable, Scroll } from '../../kit/ListTable'
import { Notice } from '../../kit/Notice'
import { NotSaved } from '../../kit/NotSaved'
import { Faint, Page, Title } from '../../kit/Page'
import { useAccount } from '../../api/session'
import { useSayClimate } from '../../api/judge'
import { Choice } from '../../kit/Field'
import { type PlaceRow, placeTree } from './placeTree'
import { RenamePlace } from './RenamePlace'

/** Building, room, shelf, box: what is where today. */
export default function Places() {
  const places = useQuery(placeCountsQuery)
  const rows = placeTree(places.data ?? [])
  const account = useAccount()
  const mayRename = account?.mayKeepTheRecord ?? false
  const mayWrite = account?.mayWriteSheets ?? false
  return (
    <Page>
      <Title><Link to="/stores">Stores</Link> / Places</Title>
      <p><Faint>A place is written from the outside in, divided by commas: building, room, shelf, box. Each counts what
        lies in it, too.</Faint></p>
      {places.error && <Notice tone="stop" word="Not listed.">{messageOf(places.error)}</Notice>}
      {places.data && rows.length === 0 && <p>No place is written down yet. Move a machine, and name where it goes.</p>}
      {rows.length > 0 && (
        <Scroll>
          <ListTable>
            <thead><tr><th>Place</th><th>Climate</th><Figure as="th">Machines</Figure>
              <Figure as="th">Boards and units</Figure><Figure as="th">Drawers of parts</Figure></tr></thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row.path}>
                  <Deep $depth={row.depth}><RenamePlace path={row.path} name={row.name} mayRename={mayRename} /></Deep>
                  <Climate><ClimateOf row={row} /></Climate>
                  <Figure>{row.machines > 0 && <Link to={`/collection?search=${encodeURIComponent(row.path)}`}>
                    {row.machines}
                  </Link>}</Figure>
                  <Figure>{row.assemblies > 0 && <Link to={`/stores?search=${encodeURIComponent(row.path)}`}>
                    {row.assemblies}
                  </Link>}</Figure>
                  <Figure>{row.parts > 0 && (mayWrite
                    ? <Link to={`/stores/parts?search=${encodeURIComponent(row.path)}`}>{row.parts}</Link> : row.parts)}</Figure>
                </tr>
              ))}
            </tbody>
          </ListTable>
        </Scroll>
      )}
    </Page>
  )
}

const climates = { '': 'not said', kept: 'kept: even and dry', room: 'room, heated', damp: 'damp: cellar, shed',
  hot: 'hot: loft, heating', outside: 'outside: frost and sun' } as const

/** How a place treats what stands there: a harsh one is looked at more often. */
function ClimateOf({ row }: { row: PlaceRow }) {
  const say = useSayClimate()
  const mayChange = useAccount()?.mayKeepTheRecord ?? false
  const words = { ...climates, '': row.depth > 0 ? 'as around it' : climates[''] }
  if (!mayChange) return words[row.climate]
  return (
    <>
      <Choice
        label={<span className="only-read">Climate of {row.path}</span>}
        value={row.climate}
        options={Object.entries(words).map(([value, text]) => ({ value: value as keyof typeof climates, text }))}
        onChange={(next) => { say.mutate({ place: row.path, climate: next }) }}
      />
      <NotSaved error={say.error} />
    </>
  )
}

/** On a phone the table moves sideways, and the words of the choice can still be read. */
const Climate = styled.td`
  select { min-width: 10rem; }
`

const Deep = styled.td<{ $depth: number }>`
  && { padding-left: ${({ $depth }) =>
    `${String(8 + $depth * 24)}px`}; font-weight: ${({ $depth }) => ($depth === 0 ? 600 : 400)}; }
`
