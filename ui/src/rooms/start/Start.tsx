import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { openDataQuery } from '../../api/dossier'
import { historyQuery } from '../../api/history'
import { risksQuery } from '../../api/judge'
import { facetsQuery, machinesQuery } from '../../api/machines'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { type Job, openJobsQuery } from '../../api/work'
import { type Begun, type Deadline, deadlinesQuery, inHandQuery } from '../../api/start'
import { roundsDueQuery, roundsQuery } from '../../api/upkeep'
import { useDrafts } from '../../data/useDrafts'
import { useWaiting } from '../../data/useWaiting'
import { dayOf, moment } from '../../features/history/moment'
import { Mark } from '../../kit/Mark'
import { Notice } from '../../kit/Notice'
import { Faint, Page, PageHead, Title } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { Skeleton } from '../../kit/Skeleton'
import { narrow, space } from '../../theme'
import { RiskList } from '../bench/stages/judge/RiskList'
import { Plots } from './Plots'

/** The collection today: what is due, in hand, waiting, in conflict and changed lately, and how it stands, as plots. */
export default function Start() {
  return (
    <Page>
      <PageHead>
        <Title>Start</Title>
        <p><Faint>What asks for somebody today. Each line leads on.</Faint></p>
      </PageHead>
      <FirstMachine />
      <Beside>
        <Lists>
          <Due />
          <InHand />
          <Waits />
          <Conflicts />
          <Changed />
        </Lists>
        <Plots />
      </Beside>
    </Page>
  )
}

/** In an empty collection: how one begins. */
function FirstMachine() {
  const counts = useQuery(facetsQuery({})).data
  const mayEnter = useAccount()?.mayKeepTheRecord ?? false
  if (!counts || counts.places.length > 0) return null
  if (!mayEnter) return <p>Nothing is entered yet. A curator begins.</p>
  return (
    <Part title="Your first machine" faint="In five minutes">
      <p><Link to="/try">Try a sheet first</Link>: an example to play with, of which nothing is kept.</p>
      <Steps>
        <li><Link to="/collection/new">Enter a machine</Link>: an accession number and a name are enough.</li>
        <li>Add its main board, and write down what the eye meets, a line a part: <code>U40-U48 41256-15 8512</code>.
          Alt+Enter in an empty sheet writes an example.</li>
        <li>The reckoning beside it says what that amounts to, and why.</li>
      </Steps>
    </Part>
  )
}

const shown = 6

function Due() {
  const risks = useInfiniteQuery(risksQuery(0))
  const first = risks.data?.pages[0]
  const deadlines = useQuery(deadlinesQuery).data ?? []
  const rounds = useQuery(roundsDueQuery).data?.filter(({ stops, openRound }) => stops > 0 && openRound === null) ?? []
  return (
    <Part title="Due" faint={first && `${first.due.toLocaleString('en')} looks overdue`}
      action={<Link to="/diary/open-first">What to open first</Link>}>
      {rounds.length > 0 && <Lines>{rounds.slice(0, shown).map(({ rule, stops, oldest }) => <li key={rule.id}><Link
        to="/diary#rounds">Round: {rule.task}</Link>, {counted(stops, 'machine')} <Day>since {oldest}</Day></li>)}</Lines>}
      {deadlines.length > 0 && <Lines>{deadlines.slice(0, shown).map((one) => <OneDeadline key={`${one.kind} ${String(one.id)}`}
        one={one} />)}</Lines>}
      {deadlines.length > shown && <Faint>and {deadlines.length - shown} more</Faint>}
      {risks.error && <Notice tone="stop" word="Not ranked.">{messageOf(risks.error)}</Notice>}
      {!first ? risks.isPending && <Skeleton what="What is due" lines={6} />
        : first.due === 0 ? <p>Nothing is overdue.</p>
          : <RiskList withMachine risks={first.risks.filter(({ isDue }) => isDue).slice(0, shown)} />}
    </Part>
  )
}

/** Something that has a day: where it leads, and how far off the day is. */
function OneDeadline({ one }: { one: Deadline }) {
  const to = one.kind === 'order' ? `/stores/orders?order=${String(one.id)}` : one.kind === 'offer ends'
    ? `/stores/wanted?offer=${String(one.id)}` : one.kind === 'goes back'
    ? `/stores/parts?search=${encodeURIComponent(one.what.split(',')[0] ?? '')}` : `/bench/${String(one.machineId)}/make-good`
  return (
    <li>{one.overdueDays > 0 && <Mark kind="attention" />} <Link to={to}>{one.accession || what[one.kind]}</Link>{' '}
      {one.accession && `${what[one.kind]}: `}{one.what} <Day>{one.overdueDays > 0
        ? `${counted(one.overdueDays, 'day')} overdue, ${one.on}` : `by ${one.on}`}</Day></li>
  )
}

const what = { 'lasting repair': 'lasting repair', 'test again': 'to test again', 'goes back': 'Goes back', order: 'Order',
  'offer ends': 'Offer ends' } as const

function InHand() {
  const rounds = useQuery(roundsQuery).data?.filter(({ isOpen }) => isOpen) ?? []
  const begun = useQuery(inHandQuery)
  const jobs = useQuery(openJobsQuery).data?.filter(({ state }) => state === 'in hand') ?? []
  return (
    <Part title="In hand" faint="Begun, and not ended">
      {begun.error && <Notice tone="stop" word="Not read.">{messageOf(begun.error)}</Notice>}
      {rounds.length > 0 && <Lines>{rounds.map((round) => <li key={round.id}><Link to={`/diary/rounds/${String(round.id)}`}>
        {round.task}</Link> is walked, {round.done} of {round.stops} <Day>since {round.on}</Day></li>)}</Lines>}
      {jobs.length > 0 && <Lines>{jobs.slice(0, shown).map((job) => <li key={job.id}><ToJob job={job} /> is in
        hand{job.left && `; left: ${job.left}`}</li>)}</Lines>}
      <Waiting of={begun.data} what="What is in hand" none={jobs.length + rounds.length > 0 ? ''
        : 'No machine is open, no survey runs, and no job or round is in hand.'}>
        {(one: Begun) => (
          <li key={`${one.kind} ${String(one.machineId)}`}>
            <Link to={`/bench/${String(one.machineId)}/${one.kind === 'log' ? 'open-up' : 'judge'}`}>
              {one.accession} {one.machine}</Link> {one.kind === 'log' ? `is open, ${counted(one.done, 'step')}`
                : `is being surveyed, ${counted(one.done, 'subsystem')} looked at`} <Day>since {dayOf(one.since)}</Day>
          </li>
        )}
      </Waiting>
    </Part>
  )
}

function Waits() {
  const isStaff = useAccount()?.mayWriteSheets ?? false
  const data = useQuery({ ...openDataQuery, enabled: isStaff }).data ?? []
  const unsent = useDrafts().length + useWaiting().length
  const jobs = useQuery(openJobsQuery).data?.filter(({ state }) => state.startsWith('waiting')) ?? []
  return (
    <Part title="Waiting" faint={jobs.length > shown ? `${String(jobs.length)} jobs` : undefined}>
      {data.length === 0 && unsent === 0 && jobs.length === 0 && <p>Nothing waits.</p>}
      <ul>
        {jobs.slice(0, shown).map((job) => <li key={job.id}><ToJob job={job} /> {job.state === 'waiting for part'
          ? `waits for ${job.needs?.join(', ') || 'a part'}` : 'waits for hands'}{job.why && `, ${job.why}`}</li>)}
        {unsent > 0 && <li><Link to="/unsent">{unsent === 1 ? '1 thing' : `${String(unsent)} things`} on this device</Link>
          {' '}not sent yet</li>}
        {data.map((one) => (
          <li key={one.id}><Link to={`/bench/${String(one.machineId)}/arrive`}>{one.accession}</Link> personal data,{' '}
            {one.medium}: {one.decision === 'open' ? 'to be decided' : `${one.decision}, not carried out yet`}</li>
        ))}
      </ul>
    </Part>
  )
}

function ToJob({ job: { machineId, accession, title } }: { job: Job }) {
  return <><Link to={`/bench/${String(machineId)}/make-good`}>{accession}</Link> {title}</>
}

function Conflicts() {
  const machines = useInfiniteQuery(machinesQuery({ statement: ['disputed'] }))
  const first = machines.data?.pages[0]
  return (
    <Part title="In conflict" faint="Sources that do not agree"
      action={(first?.total ?? 0) > shown && <Link to="/collection?statement=disputed">All {first?.total}</Link>}>
      <Waiting of={first?.machines.slice(0, shown)} what="What is in conflict" none="No sources disagree.">
        {({ id, accession, name }) => (
          <li key={id}><Mark kind="attention" /> <Link to={`/bench/${String(id)}/look-over`}>{accession} {name}</Link></li>
        )}
      </Waiting>
    </Part>
  )
}

function Changed() {
  const history = useInfiniteQuery(historyQuery('collection'))
  const newest = history.data?.pages[0]?.events.filter((event, i, all) => event.machineId
    && all.findIndex(({ machineId }) => machineId === event.machineId) === i).slice(0, shown)
  return (
    <Part title="Changed lately" action={<Link to="/diary">All that was done</Link>}>
      <Waiting of={newest} what="What changed" none="Nothing was done yet.">
        {({ id, at, machineId, accession, by, what }) => (
          <li key={id}><Day>{moment(at)}</Day> <Link to={`/bench/${String(machineId)}`}>{accession}</Link>{' '}
            {by || 'The command line'} {what}</li>
        )}
      </Waiting>
    </Part>
  )
}

function Waiting<One>({ of, what, none, children }: { of: One[] | undefined; what: string; none: string
  children: (one: One) => ReactNode }) {
  if (!of) return <Skeleton what={what} lines={3} />
  return of.length === 0 ? none && <p>{none}</p> : <Lines>{of.map(children)}</Lines>
}

const counted = (count: number, of: string) => `${String(count)} ${of}${count === 1 ? '' : 's'}`

const Beside = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 3fr);
  gap: ${space(3)};
  ${narrow} { grid-template-columns: minmax(0, 1fr); }
`
const Lists = styled.div`
  display: flex;
  flex-direction: column;
  gap: ${space(3)};
`
// A day is never broken.
const Day = styled(Faint)`
  white-space: nowrap;
`
const Steps = styled.ol`
  padding-left: ${space(3)};
  list-style: decimal;
`
const Lines = styled.ul`
  li { padding: 3px 0; overflow-wrap: anywhere; }
  svg { vertical-align: -3px; }
`
