import { useQuery } from '@tanstack/react-query'
import { Link, useParams } from 'react-router'

import { type KnownAssembly, type KnownDetail, oneKnownQuery, useChangeKnown, useStrikeKnown } from '../../../api/known'
import { messageOf } from '../../../api/problem'
import { useAccount } from '../../../api/session'
import { Button, Buttons } from '../../../kit/Button'
import { EditRecord } from '../../../kit/EditRecord'
import { Scroll, StackedTable } from '../../../kit/ListTable'
import { Mark } from '../../../kit/Mark'
import { Notice } from '../../../kit/Notice'
import { Faint, Page, Title } from '../../../kit/Page'
import { PartIndex } from '../../../kit/PartIndex'
import { Facts, Part } from '../../../kit/Part'
import { Skeleton } from '../../../kit/Skeleton'
import { usePanel } from '../../../kit/usePanel'
import { SignTable } from '../../../features/signs/SignTable'
import { DetailsOf } from './DetailsOf'
import { KnownForm } from './KnownForm'
import { TestedFor } from './TestedFor'

/** A known assembly: what is known of it, and where it is. */
export default function OneKnown() {
  const id = Number(useParams().id)
  const known = useQuery(oneKnownQuery(id))
  if (known.isPending) return <Page><Skeleton what="The card" lines={14} /></Page>
  if (!known.data) {
    return <Page><Title>Cards and boards</Title>
      <Notice tone="stop" word="Not read.">{messageOf(known.error)}</Notice></Page>
  }
  return <One key={id} known={known.data} />
}

function One({ known }: { known: KnownDetail }) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [editing, setEditing] = usePanel('edit')
  const strike = useStrikeKnown(known.id, known.name)
  return (
    <Page>
      <Title><Link to="/library/known">Cards and boards</Link> / {known.name}</Title>
      <PartIndex />
      {known.isStruck && <Notice tone="attention" word="Struck out.">It was named by mistake, and is recognised no more.
        The <Link to="/diary">diary</Link> can bring it back.</Notice>}
      {known.overlaps.map((other) => <Notice key={other.id} tone="attention" word="Claimed twice.">
        <Link to={`/library/known/${String(other.id)}`}>{other.name}</Link> claims {other.number} as well,
        for {other.revisions}. Both are shown where it occurs until one of them says which revisions it speaks of.
      </Notice>)}
      {known.remarks.map((remark) => <Notice key={remark} tone="attention" word="Look again:">{remark}.</Notice>)}
      {editing ? <Edit known={known} onDone={() => { setEditing(false) }} /> : (
        <>
          <Facts>
            <dt>Sort</dt><dd>{known.kind}</dd>
            {known.maker && <><dt>Maker</dt><dd>{known.maker}</dd></>}
            {known.numbers && <><dt>Part numbers</dt><dd>{known.numbers}</dd></>}
            {known.numbers && <><dt>Revisions</dt><dd>{known.revisions || 'every one'}</dd></>}
            {known.printed && <><dt>Printed on it</dt><dd>{known.printed}</dd></>}
            {known.chips && <><dt>Chips that tell it</dt><dd>{known.chips.split('\n').join(', ')}</dd></>}
            <dt>How one knows</dt><dd>{known.source || 'recalled'}</dd>
            {known.note && <><dt>Note</dt><dd>{known.note}</dd></>}
          </Facts>
          {mayWrite && !known.isStruck && (
            <Buttons>
              <Button onPress={() => { setEditing(true) }}>Edit</Button>
              <Button $tone="quiet" isPending={strike.isPending} onPress={() => { strike.mutate() }}>Strike it out</Button>
            </Buttons>
          )}
          {strike.error && <Notice tone="stop" word="Not done.">{messageOf(strike.error)}</Notice>}
          <DetailsOf details={known.read} />
          {known.signs && <Part title="What it shows"><SignTable table={known.shows} /></Part>}
        </>
      )}
      <TestedFor known={known} mayWrite={mayWrite} />
      <Places known={known} />
    </Page>
  )
}

function Edit({ known, onDone }: { known: KnownAssembly; onDone: () => void }) {
  const change = useChangeKnown(known.id)
  const names = { name: 'what it is', kind: 'sort', maker: 'maker', numbers: 'part numbers', revisions: 'revisions',
    printed: 'printed on it', chips: 'chips', details: 'what is known of it', signs: 'what it shows', note: 'note', source: 'how one knows' }
  return (
    <EditRecord keptAs={`card ${String(known.id)}`}
      record={known} change={change} newerIn={(newer) => newer.knownAssembly} names={names} onDone={onDone}>
      {(form) => <KnownForm start={known} action="Save" {...form} />}
    </EditRecord>
  )
}

function Places({ known }: { known: KnownDetail }) {
  return (
    <Part title="Where it is" faint={`${String(known.places.length)}${known.more ? ' and perhaps more' : ''}`}>
      {known.places.length === 0 && <p>Nothing in the collection is known by it yet.</p>}
      {known.places.length > 0 && (
        <Scroll>
          <StackedTable>
            <thead><tr><th>Assembly</th><th>In</th><th>Part number</th><th>Revision</th><th>Known by</th></tr></thead>
            <tbody>
              {known.places.map((place) => (
                <tr key={place.assemblyId}>
                  <td><Link to={place.machineId ? `/bench/${String(place.machineId)}/take-stock`
                    : `/stores/${String(place.assemblyId)}`}>{place.title}</Link></td>
                  <td>{place.machineId ? `${place.accession} ${place.machine}` : place.place || 'no machine'}</td>
                  <td>{place.part}</td>
                  <td>{place.rev}</td>
                  <td>{!place.match.sure && <><Mark kind="unknown" /> perhaps: </>}<Faint>{place.match.why}</Faint></td>
                </tr>
              ))}
            </tbody>
          </StackedTable>
        </Scroll>
      )}
    </Part>
  )
}
