import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type PackRow, useLibraryPack } from '../../../api/packs'
import { messageOf } from '../../../api/problem'
import { useAccount } from '../../../api/session'
import { keepUnder } from '../../../data/drafts'
import { useKept } from '../../../data/useDrafts'
import { Button, Buttons } from '../../../kit/Button'
import { Field, FormPanel, Tick } from '../../../kit/Field'
import { Scroll, StackedTable } from '../../../kit/ListTable'
import { Mark, type MarkKind } from '../../../kit/Mark'
import { Notice } from '../../../kit/Notice'
import { Faint, Page, Title } from '../../../kit/Page'
import { Part } from '../../../kit/Part'
import { font } from '../../../theme'

/** What collections give each other of their libraries. */
export default function Packs() {
  const mayTake = useAccount()?.mayKeepTheRecord ?? false
  return (
    <Page>
      <Title><Link to="/library">Library</Link> / Packs</Title>
      <Part title="Give">
        <p>Types, cards and boards, models with their signs, and procedures of this collection as one file (JSON), for
          another collection: <a href="/api/library.json" download>library.json</a>. Names of private persons stay here.</p>
        <p><Faint>Types alone go as a table: <a href="/api/own-types.csv" download>types.csv</a>.</Faint></p>
      </Part>
      {mayTake && <Take />}
    </Page>
  )
}

const keptAs = 'pack of a library'

/** Takes over a pack: first what it would do, entry by entry, with what differs beside what is here. */
function Take() {
  const [text, change] = useKept(keptAs, '')
  const setText = (next: string) => { change(() => next) }
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set())
  const look = useLibraryPack()
  const take = useLibraryPack()
  const rows = take.data?.rows ?? look.data?.rows ?? []
  const begin = () => {
    take.reset()
    look.mutate({ text, take: [] }, { onSuccess: (data) => {
      // What contradicts is not taken without being asked for.
      setChosen(new Set(data.rows.filter((row) => row.canBeTaken && row.state !== 'beside').map(({ n }) => n)))
    } })
  }
  const turn = (n: number, isOn: boolean) => {
    const next = new Set(chosen)
    if (isOn) next.add(n)
    else next.delete(n)
    setChosen(next)
  }
  const choices = rows.filter(({ n, canBeTaken }) => canBeTaken && chosen.has(n)).map(({ n, state }) => ({ n, state }))
  return (
    <Part title="Take" faint="Nothing is written over">
      <FormPanel onSubmit={(event) => { event.preventDefault(); begin() }}>
        <Field label="Pack of another collection, JSON" value={text} rows={4} mono
          onChange={(next) => { setText(next); look.reset(); take.reset() }}
          hint="Choose the file, or paste it. Nothing is taken before you have seen what would be done." />
        <Buttons>
          <input type="file" accept=".json,application/json" aria-label="File of a library"
            onChange={(event) => { look.reset(); take.reset(); void event.target.files?.[0]?.text().then(setText) }} />
          <Button type="submit" $tone="main" isPending={look.isPending} isDisabled={text.trim() === ''}>
            See what it would do
          </Button>
          {look.data && !take.data && <Button isPending={take.isPending} isDisabled={choices.length === 0}
            onPress={() => {
              take.mutate({ text, take: choices }, { onSuccess: () => { keepUnder(keptAs, undefined) } })
            }}>Take {choices.length} of them</Button>}
        </Buttons>
      </FormPanel>
      {(look.error ?? take.error) && <Notice tone="stop" word="Not taken.">
        {messageOf(look.error ?? take.error)}
      </Notice>}
      {look.data && (
        <p role="status">
          {take.data ? `${String(take.data.taken)} taken. ` : ''}
          {look.data.of && `Of ${look.data.of}: `}{summary(rows)}.
        </p>
      )}
      {rows.some(({ state }) => state !== 'same') && (
        <Scroll>
          <StackedTable>
            <thead><tr><th>Take</th><th>What</th><th>How it stands</th><th>What differs: here, and in the pack</th></tr></thead>
            <tbody>{rows.filter(({ state }) => state !== 'same').slice(0, most).map((row) => (
              <tr key={row.n}>
                <td>{row.taken ? 'taken' : row.canBeTaken && !take.data
                  ? <Tick label={<span className="only-read">{row.name}</span>} isOn={chosen.has(row.n)}
                    onChange={(isOn) => { turn(row.n, isOn) }} /> : <Faint>not</Faint>}</td>
                <td><Faint>{row.sort}</Faint><br />{row.hereId ? <Link to={placeOf(row)}>{row.name}</Link> : row.name}</td>
                <td><Mark kind={marks[row.state]} /> {words[row.state]}{row.why && <><br /><Faint>{row.why}</Faint></>}</td>
                <td><Differences row={row} /></td>
              </tr>
            ))}</tbody>
          </StackedTable>
        </Scroll>
      )}
      {rows.length > most && <p><Faint>The first {most} are shown.</Faint></p>}
    </Part>
  )
}

const most = 300

function Differences({ row }: { row: PackRow }) {
  return (
    <Lines>{row.differences.slice(0, 20).map((one) => (
      <div key={`${one.field} ${one.pack}`}>
        <dt>{one.field}</dt>
        {one.here && <dd><Faint>here</Faint> {one.here}</dd>}
        <dd><Faint>{one.here ? 'pack' : 'adds'}</Faint> {one.pack}</dd>
      </div>
    ))}{row.differences.length > 20 && <div><dd>and {row.differences.length - 20} more</dd></div>}</Lines>
  )
}

const marks: Record<PackRow['state'], MarkKind> = { new: 'done', same: 'part', adds: 'done', beside: 'attention',
  wrong: 'problem' }
const words: Record<PackRow['state'], string> = { new: 'new here', same: 'the same', adds: 'adds to ours',
  beside: 'contradicts ours', wrong: 'cannot be read' }

const counted: Record<PackRow['state'], string> = { new: 'new here', same: 'the same', adds: 'with more than ours',
  beside: 'against ours', wrong: 'unreadable' }

const summary = (rows: PackRow[]) => (Object.keys(counted) as PackRow['state'][])
  .map((state) => [rows.filter((row) => row.state === state).length, counted[state]] as const)
  .filter(([count]) => count > 0).map(([count, word]) => `${String(count)} ${word}`).join(', ') || 'it holds nothing'

function placeOf({ sort, hereId, name }: PackRow): string {
  switch (sort) {
    case 'known assembly': return `/library/known/${String(hereId)}`
    case 'model': return `/library/models/${String(hereId)}`
    case 'procedure': return '/library/procedures'
    case 'type': return `/library?type=${encodeURIComponent(name)}&start=${encodeURIComponent(name)}`
  }
}

const Lines = styled.dl`
  margin: 0;
  dt { font-size: 14px; }
  dd { margin: 0; font: 14px ${font.mono}; overflow-wrap: anywhere; white-space: pre-line; }
`
