import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import styled from 'styled-components'

import { messageOf } from '../../api/problem'
import { donorsQuery, type JobNeed, needsQuery, useRelease, useSetAside } from '../../api/stores'
import { Button } from '../../kit/Button'
import { Figure, Scroll, StackedTable, Whole } from '../../kit/ListTable'
import { Mark, type MarkKind } from '../../kit/Mark'
import { Notice } from '../../kit/Notice'
import { NotSaved } from '../../kit/NotSaved'
import { Faint, Page, Title } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { useNamedRow } from '../../kit/useNamedRow'
import { space } from '../../theme'

const marks: Record<JobNeed['state'], MarkKind> = { short: 'problem', 'in stock': 'none', 'on order': 'later',
  'set aside': 'done' }

/** What all open jobs need: what lies ready, what could serve, what is to come, and what is short. */
export default function Needs() {
  const needs = useQuery(needsQuery)
  const navigate = useNavigate()
  const named = useNamedRow('job')
  const all = needs.data?.needs ?? []
  const counted = (['short', 'in stock', 'on order', 'set aside'] as const).map((state) =>
    ({ state, count: all.filter((one) => one.state === state).length })).filter(({ count }) => count > 0)
  return (
    <Page>
      <Title><Link to="/stores">Stores</Link> / What jobs need</Title>
      {needs.error && <Notice tone="stop" word="Not reckoned.">{messageOf(needs.error)}</Notice>}
      <Part title="Needs" faint={counted.map(({ state, count }) => `${String(count)} ${state}`).join(', ')}>
        <p><Faint>Parts are given out in the order in which jobs were put down, until somebody sets one aside.</Faint></p>
        {needs.data && all.length === 0 && <p>No open job waits for a part. What one needs is written on the job, in Make
          good.</p>}
        {all.length > 0 && (
          <Scroll>
            <StackedTable>
              <thead><tr><th>Need</th><th>For</th><th>How it stands</th><th>What there is</th></tr></thead>
              <tbody>{all.map((one, i) => <Row key={`${String(one.jobId)} ${one.need} ${String(i)}`} one={one}
                isNamed={named === String(one.jobId)} isFirst={all.findIndex(({ jobId }) => jobId === one.jobId) === i} />)}</tbody>
            </StackedTable>
          </Scroll>
        )}
      </Part>
      {needs.data && needs.data.toOrder.length > 0 && (
        <Part title="To order together" action={<Button $small $tone="main"
          onPress={() => void navigate('/stores/orders?open=order&fill=short')}>Write down this order</Button>}>
          <Scroll>
            <StackedTable>
              <thead><tr><Figure as="th">Count</Figure><th>What</th><th>For</th></tr></thead>
              <tbody>{needs.data.toOrder.map(({ what, count, refill, jobs }) => (
                <tr key={what}>
                  <Figure>{count}</Figure>
                  <td>{what}</td>
                  <td>{jobs.map((job) => <div key={job.jobId}><ToJob job={job} /></div>)}
                    {refill > 0 && <Faint>{refill} to fill the drawer</Faint>}</td>
                </tr>
              ))}</tbody>
            </StackedTable>
          </Scroll>
        </Part>
      )}
    </Page>
  )
}

function ToJob({ job }: { job: { jobId: number; job: string; machineId: number; accession: string } }) {
  return <Link to={`/bench/${String(job.machineId)}/make-good`}>{job.accession}: {job.job}</Link>
}

function Row({ one, isNamed, isFirst }: { one: JobNeed; isNamed: boolean; isFirst: boolean }) {
  const setAside = useSetAside(one.jobId)
  const release = useRelease()
  return (
    <tr id={isFirst ? `job-${String(one.jobId)}` : undefined} tabIndex={-1} aria-selected={isNamed || undefined}>
      <td><strong>{one.need}</strong></td>
      <td><ToJob job={one} /></td>
      <Whole><Mark kind={marks[one.state]} /> {one.state}{one.missing > 0 && `, ${String(one.missing)} missing`}</Whole>
      <td>
        {one.setAside.map((aside) => (
          <Line key={aside.id}>
            <span>{aside.count} set aside{aside.orderId !== null && ', of an order'}</span>
            <Button $small $tone="quiet" aria-label={`Release ${one.need} for ${one.accession}`} isPending={release.isPending}
              onPress={() => { release.mutate(aside.id) }}>Release</Button>
          </Line>
        ))}
        {one.offers.map((offer) => (
          <Line key={offer.stockId}>
            <span>{offer.what}: {offer.free} free{offer.place && `, ${offer.place}`}
              <Grade of={offer.what} grade={offer.grade} why={offer.why} /></span>
            {offer.count > 0 && <Button $small aria-label={`Set ${String(offer.count)} aside: ${offer.what} for ${one.accession}`}
              isPending={setAside.isPending}
              onPress={() => { setAside.mutate({ need: one.need, stockId: offer.stockId, count: offer.count }) }}>
              Set {offer.count} aside</Button>}
          </Line>
        ))}
        {one.coming.filter(({ isSetAside }) => !isSetAside).map((coming) => (
          <Line key={`${String(coming.orderId)} ${String(coming.line)}`}>
            <span>{coming.count} to come: {coming.what}, of <Link to={`/stores/orders?order=${String(coming.orderId)}`}>
              {coming.supplier}</Link>{coming.dueOn && `, due ${coming.dueOn}`}
              <Grade of={coming.what} grade={coming.grade} why={coming.why} /></span>
            <Button $small aria-label={`Set ${String(coming.count)} aside: ${coming.what} of the order, for ${one.accession}`} isPending={setAside.isPending}
              onPress={() => { setAside.mutate({ need: one.need, orderId: coming.orderId, line: coming.line,
                count: coming.count }) }}>
              Set {coming.count} aside</Button>
          </Line>
        ))}
        {one.taken.map((taken) => <div key={taken.stockId}><Faint>{taken.what} goes first to <ToJob job={taken} /></Faint></div>)}
        {one.missing > 0 && <Donors need={one.need} />}
        <NotSaved error={setAside.error ?? release.error} />
      </td>
    </tr>
  )
}

const grades = { exact: 'as asked for', better: 'better', acceptable: 'usable', no: 'does not fit' } as const

/** How well a part fits; why stands behind, unless it is as asked for. */
function Grade({ of, grade, why }: { of: string; grade: keyof typeof grades; why: string[] }) {
  if (grade === 'exact') return null
  return (
    <details>
      <summary aria-label={`${grades[grade]}: why, ${of}`}><Faint>{grades[grade]}: why</Faint></summary>
      <ul>{why.map((reason) => <li key={reason}>{reason}</li>)}</ul>
    </details>
  )
}

const Line = styled.div`
  display: flex;
  gap: ${space(1)};
  align-items: start;
  justify-content: space-between;
  > :first-child { min-width: 0; }
  > :last-child:not(:first-child) { flex: none; }
`

/** Which boards hold the part; what is taken from one is missing there. */
function Donors({ need }: { need: string }) {
  const [asked, setAsked] = useState(false)
  const donors = useQuery({ ...donorsQuery(need), enabled: asked })
  if (!asked) return <Button $small $tone="quiet" aria-label={`Which boards hold it? ${need}`}
    onPress={() => { setAsked(true) }}>Which boards hold it?</Button>
  if (donors.error) return <Notice tone="stop" word="Not found out.">{messageOf(donors.error)}</Notice>
  if (!donors.data) return <Faint>Looking</Faint>
  if (donors.data.length === 0) return <Faint>No sheet has it under a number that the library knows.</Faint>
  return (
    <>
      <Faint>Whatever is taken from a board is missing there:</Faint>
      <ul>{donors.data.slice(0, 8).map((one) => (
        <li key={`${String(one.assemblyId)} ${String(one.line)}`}>
          <Link to={one.machineId === null ? `/stores/${String(one.assemblyId)}?at=${String(one.assemblyId)}.${String(one.line)}`
            : `/bench/${String(one.machineId)}/take-stock?at=${String(one.assemblyId)}.${String(one.line)}`}>
            {one.machineId === null ? 'Stores' : one.accession}: {one.assembly}</Link> {one.count > 1 && `${String(one.count)} x `}
          {one.marking}
        </li>
      ))}</ul>
      {donors.data.length > 8 && <Faint>and {donors.data.length - 8} more</Faint>}
    </>
  )
}
