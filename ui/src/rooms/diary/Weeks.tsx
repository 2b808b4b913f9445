import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'

import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { type DiaryEntry, diaryQuery, type DiaryWeek, useAddPlan } from '../../api/upkeep'
import { Button, Buttons } from '../../kit/Button'
import { inHours, late } from '../../kit/hours'
import { Mark } from '../../kit/Mark'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { Skeleton } from '../../kit/Skeleton'
import { useFilters } from '../../kit/useFilters'
import { usePanel } from '../../kit/usePanel'
import { color, narrow, space } from '../../theme'
import { OnePlan, PlanForm } from './PlanForm'
import { shownWeeks } from './shownWeeks'

/** Weeks: what falls due in each, what is planned, and what was done, with the hours that each takes. */
export function Weeks() {
  const [parameters, setParameters] = useFilters()
  const from = parameters.get('from') ?? ''
  const weeks = useQuery({ ...diaryQuery(from, shownWeeks), placeholderData: (before) => before })
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [planning, setPlanning] = usePanel('plan')
  const add = useAddPlan()
  const first = weeks.data?.[0]?.from ?? ''
  const most = Math.max(1, ...(weeks.data ?? []).flatMap(({ due, planned, done }) => [due.hours, planned.hours,
    done.hours]))
  const go = (by: number) => {
    const day = new Date(`${first}T12:00:00Z`)
    day.setUTCDate(day.getUTCDate() + 7 * by)
    setParameters({ from: day.toISOString().slice(0, 10) })
  }
  return (
    <Part title="By week" faint="What is planned is not done by that: both stand apart" action={<>
      {mayWrite && <Button $small onPress={() => { setPlanning(true) }}>Plan something</Button>}</>}>
      {planning && <PlanForm keptAs="new plan" action="Plan it" error={add.error} isPending={add.isPending}
        onCancel={() => { setPlanning(false) }}
        onSubmit={(fields) => { add.mutate(fields, { onSuccess: () => { setPlanning(false) } }) }} />}
      {weeks.error && <Notice tone="stop" word="Not read.">{messageOf(weeks.error)}</Notice>}
      {!weeks.data && weeks.isPending && <Skeleton what="The weeks" lines={12} />}
      {weeks.data?.map((week) => <OneWeek key={week.name} week={week} most={most} />)}
      {first && (
        <Buttons>
          <Button $small onPress={() => { go(-shownWeeks) }}>Earlier</Button>
          {from && <Button $small onPress={() => { setParameters({}) }}>This week</Button>}
          <Button $small onPress={() => { go(shownWeeks) }}>Later</Button>
        </Buttons>
      )}
    </Part>
  )
}

const sorts = { due: 'Due', planned: 'Planned', done: 'Done' } as const

function OneWeek({ week, most }: { week: DiaryWeek; most: number }) {
  return (
    <Box aria-label={`Week ${week.name}`}>
      <h3>{week.from} to {week.to} <Faint>{week.name}{week.isNow && ', this week'}</Faint></h3>
      <Three>
        {(['due', 'planned', 'done'] as const).map((sort) => {
          const load = week[sort]
          const lines = week.lines.filter((line) => line.sort === sort)
          return (
            <div key={sort}>
              <Load>{sorts[sort]} <Faint>{load.count === 0 ? 'nothing' : [load.hours > 0 && inHours(Math.round(load.hours * 60)),
                load.untimed > 0 && `${String(load.untimed)} of unknown length`].filter(Boolean).join(' and ')}</Faint></Load>
              {load.hours > 0 && <Bar style={{ width: `${String(Math.max(2, 100 * load.hours / most))}%` }} data-sort={sort} />}
              <ul>{lines.map((line) => <Line key={`${line.kind} ${String(line.id)} ${line.on}`} line={line} />)}</ul>
            </div>
          )
        })}
      </Three>
    </Box>
  )
}

function Line({ line }: { line: DiaryEntry }) {
  const machine = line.machineId === null ? undefined : `/bench/${String(line.machineId)}`
  const takes = line.minutes > 0 && <Faint> {inHours(line.minutes)}</Faint>
  if (line.plan) return <li><OnePlan plan={line.plan} isDone={line.isDone} /></li>
  if (line.sort === 'done') {
    return <li><Faint>{line.on}</Faint> {machine ? <Link to={`${machine}/${stages[line.kind] ?? 'at-a-glance'}`}>{line.accessions[0]}</Link>
      : line.kind === 'round' && <Link to={`/diary/rounds/${String(line.id)}`}>{line.what}</Link>}{' '}
      {line.kind === 'round' ? counted(line.count, 'machine') : words[line.kind] ?? line.what}
      {line.kind === 'power-up' && line.count > 1 && `, ${String(line.count)} times`}{takes}</li>
  }
  return (
    <li>
      {line.overdueDays > 0 ? <><Mark kind="attention" /> <Faint>{late(line.overdueDays)}</Faint></>
        : <Faint>{line.on}</Faint>}{' '}
      {line.what}{line.kind === 'upkeep' && line.count > 1 && `: ${counted(line.count, 'machine')}`}{takes}
      {line.accessions.length > 0 && <div><Faint>{machine ? <Link to={`${machine}/${line.kind === 'deadline' ? 'make-good'
        : 'judge#upkeep'}`}>{line.accessions[0]}</Link> : line.accessions.slice(0, 6).join(', ')}
        {line.count > 6 && !machine && ` and ${String(line.count - 6)} more`}</Faint></div>}
    </li>
  )
}

/** What was done, where its kind says more than its words. */
const words: Partial<Record<DiaryEntry['kind'], string>> = { survey: 'surveyed', 'power-up': 'under power', log: 'opened' }
const stages: Partial<Record<DiaryEntry['kind'], string>> = { job: 'make-good', survey: 'judge', 'power-up': 'power-up',
  log: 'open-up', upkeep: 'judge' }

const counted = (n: number, one: string) => n === 1 ? `1 ${one}` : `${n.toLocaleString('en')} ${one}s`

const Box = styled.section`
  border-top: 1px solid ${color.line};
  padding-top: ${space(1)};
  h3 { font-size: 16px; }
`
const Three = styled.div`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: ${space(1)} ${space(3)};
  ul { margin: 4px 0 0; padding-left: 18px; }
  li { overflow-wrap: anywhere; }
  ${narrow} { grid-template-columns: minmax(0, 1fr); }
`
const Load = styled.p`
  font-weight: 700;
`
const Bar = styled.div`
  height: 6px;
  background: ${color.slate};
  &[data-sort='due'] { background: ${color.amber}; }
  &[data-sort='done'] { background: ${color.reed}; }
`
