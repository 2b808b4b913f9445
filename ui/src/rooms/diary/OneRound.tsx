import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { Link, useParams } from 'react-router'
import styled from 'styled-components'

import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { type Round, roundQuery, type RoundStop, useEndRound } from '../../api/upkeep'
import { useWaiting } from '../../data/useWaiting'
import { Button } from '../../kit/Button'
import { Cautions } from '../../kit/Cautions'
import { Field } from '../../kit/Field'
import { inHours } from '../../kit/hours'
import { Mark } from '../../kit/Mark'
import { Notice } from '../../kit/Notice'
import { Faint, Page, PageHead, Title } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { Skeleton } from '../../kit/Skeleton'
import { usePanel } from '../../kit/usePanel'
import { color, space } from '../../theme'
import { minutesIn } from './PlanForm'
import { StopForm } from './StopForm'

/** A round as it is walked: one stop after the other, each said in a tap or two, with or without a connection. */
export default function OneRound() {
  const id = Number(useParams().id)
  const round = useQuery(roundQuery(id))
  if (round.error && !round.data) return <Page><Notice tone="stop" word="Not read.">{messageOf(round.error)}</Notice></Page>
  if (!round.data) return <Page><Skeleton what="The round" lines={10} /></Page>
  return <Walk key={id} round={round.data} />
}

/** What waits on this device of the stops of a round, by stop. */
function useKeptHere(id: number) {
  const kept = new Map<number, { refused: string }>()
  for (const { address, refused } of useWaiting()) {
    const [, of, n] = /^\/api\/rounds\/(\d+)\/stops\/(\d+)$/.exec(address) ?? []
    if (Number(of) === id) kept.set(Number(n), { refused })
  }
  return kept
}

function Walk({ round }: { round: Round }) {
  const kept = useKeptHere(round.id)
  const mayWrite = (useAccount()?.mayWriteSheets ?? false) && round.isOpen
  const isSaid = ({ n, deed }: RoundStop) => deed !== null || kept.has(n)
  const [passed, setPassed] = useState<number[]>([]) // left for later
  const next = round.roundsOf.find((stop) => !isSaid(stop) && !passed.includes(stop.n))
    ?? round.roundsOf.find((stop) => !isSaid(stop))
  const [chosen, setChosen] = useState<number>()
  const now = mayWrite ? chosen ?? next?.n : undefined
  const said = round.roundsOf.filter(isSaid).length
  const card = useRef<HTMLDivElement>(null)
  const [isWalked, setWalked] = useState(false)
  // After a deed the next stop is the next thing.
  useEffect(() => {
    if (!isWalked) return
    const frame = requestAnimationFrame(() => card.current?.querySelector<HTMLElement>('h2')?.focus())
    return () => { cancelAnimationFrame(frame) }
  }, [isWalked, now])
  const goOn = (n: number, isLeft: boolean) => {
    setWalked(true)
    setChosen(undefined)
    setPassed((before) => isLeft ? [...before.filter((one) => one !== n), n] : before.filter((one) => one !== n))
  }
  const list = { kept, onChoose: mayWrite ? (n: number) => { setWalked(true); setChosen(n) } : undefined }
  return (
    <Page>
      <PageHead>
        <Title><Link to="/diary">Diary</Link> / {round.task}</Title>
        <p><Faint>Begun {round.on} by {round.by || 'the command line'}{round.endedOn && `, ended ${round.endedOn}`}
          {round.minutes > 0 && `, took ${inHours(round.minutes)}`}</Faint></p>
      </PageHead>
      <Progress role="status">{said} of {round.stops} said{kept.size > 0 && `, ${String(kept.size)} kept on this device`}</Progress>
      <progress max={round.stops} value={said} aria-label="Stops that are said" />
      {mayWrite && round.rule.cautions.length > 0 && (
        <details open={!isWalked}>
          <summary>Take care: {round.rule.cautions.map(({ word }) => word.toLowerCase()).join(', ')}</summary>
          <Cautions cautions={round.rule.cautions} />
        </details>
      )}
      {round.rule.how && <p>{round.rule.how}</p>}
      {round.roundsOf.filter(({ n }) => n === now).map((stop) => (
        <div key={stop.n} ref={card}>
          <StopForm round={round} stop={stop} onDone={() => { goOn(stop.n, false) }} onLeave={() => { goOn(stop.n, true) }} />
        </div>
      ))}
      <Stretch title="Still to come" stops={round.roundsOf.filter((stop) => !isSaid(stop) && stop.n !== now)} {...list} />
      <Stretch title="Said" stops={round.roundsOf.filter((stop) => isSaid(stop) && stop.n !== now)} {...list} />
      {round.isOpen && <EndRound round={round} left={round.stops - said} waits={kept.size > 0} />}
      {round.note && <p>{round.note}</p>}
    </Page>
  )
}

/** Some stops of a round in walking order, each a line. */
function Stretch({ title, stops, kept, onChoose }: { title: string; stops: RoundStop[]; kept: Map<number, { refused: string }>
  onChoose?: (n: number) => void }) {
  if (stops.length === 0) return null
  return (
    <Part title={title} faint={String(stops.length)}>
      <Stops>{stops.map((stop) => <li key={stop.n}><SaidStop stop={stop} kept={kept.get(stop.n)}
        onChoose={onChoose && !kept.has(stop.n) ? () => { onChoose(stop.n) } : undefined} /></li>)}</Stops>
    </Part>
  )
}

const hows = { did: 'done', seen: 'seen', not: 'not done' } as const

function SaidStop({ stop, kept, onChoose }: { stop: RoundStop; kept?: { refused: string }; onChoose?: () => void }) {
  const { deed } = stop
  return (
    <Line>
      <div>
        {stop.machineId ? <Link to={`/bench/${String(stop.machineId)}/at-a-glance`}>{stop.accession} {stop.name}</Link>
          : <Link to={`/stores/${String(stop.assemblyId)}`}>{stop.name}</Link>} <Faint>{stop.place}</Faint>
        {deed && <div><Mark kind={deed.how === 'not' ? 'attention' : 'done'} /> {hows[deed.how]}
          {[deed.why, deed.measured, deed.found && `found: ${deed.found}`, deed.takenOut && 'taken out', deed.note]
            .filter(Boolean).map((words) => `; ${String(words)}`).join('')} <Faint>{[deed.by, deed.on].filter(Boolean).join(', ')}</Faint></div>}
        {kept && <div>{kept.refused ? <><Mark kind="problem" /> Not taken: {kept.refused} <Link to="/unsent">See what was
          typed</Link></> : <><Mark kind="later" /> kept on this device</>}</div>}
      </div>
      {onChoose && <Button $small $tone="quiet" aria-label={`${deed ? 'Correct' : 'Say'} stop ${String(stop.n)}`} onPress={onChoose}>
        {deed ? 'Correct' : 'Say'}</Button>}
    </Line>
  )
}

function EndRound({ round, left, waits }: { round: Round; left: number; waits: boolean }) {
  const [ending, setEnding] = usePanel('end')
  const end = useEndRound(round.id)
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [wrong, setWrong] = useState<Record<string, string>>({})
  if (!mayWrite) return null
  if (!ending) return <div><Button $tone={left === 0 ? 'main' : undefined} onPress={() => { setEnding(true) }}>End the round</Button></div>
  return (
    <Part title="End the round" faint={left > 0 ? `${String(left)} stay due` : undefined}>
      {waits && <Notice tone="attention" word="Wait.">What is kept on this device is not with the server yet. Send it first:
        an ended round takes nothing more.</Notice>}
      <RecordForm keptAs={`end of round ${String(round.id)}`} error={end.error} wrong={wrong} isPending={end.isPending}
        action="End it" onCancel={() => { setEnding(false) }} onSubmit={(data) => {
          const minutes = minutesIn(textOf(data, 'minutes'))
          setWrong(minutes === undefined ? { minutes: 'Write hours, as 1.5, or leave it empty.' } : {})
          if (minutes === undefined) return
          end.mutate({ version: round.version, minutes, note: textOf(data, 'note') }, { onSuccess: () => { setEnding(false) } })
        }}>
        <Field label="Hours that it took" name="minutes" inputMode="decimal"
          defaultValue={round.took > 0 ? (round.took / 60).toFixed(2) : undefined} />
        <Field label="Note" name="note" rows={2} />
      </RecordForm>
    </Part>
  )
}

const Progress = styled.p`
  font-weight: 700;
  + progress { width: 100%; accent-color: ${color.slate}; }
`
const Stops = styled.ol`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  margin: 0;
  padding: 0;
  list-style: none;
`
const Line = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: start;
  gap: ${space(1)};
  padding: ${space(1)} 0;
  border-bottom: 1px solid ${color.line};
  > div { min-width: 0; overflow-wrap: anywhere; }
`
