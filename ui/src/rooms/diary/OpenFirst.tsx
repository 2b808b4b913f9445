import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import type { Schemas } from '../../api/client'
import { openingsQuery, risksQuery } from '../../api/judge'
import { messageOf } from '../../api/problem'
import { Button, Buttons } from '../../kit/Button'
import { Field } from '../../kit/Field'
import { Notice } from '../../kit/Notice'
import { Faint, Page, PageHead, Title } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { color, space } from '../../theme'
import { placeOf, RiskList } from '../bench/stages/judge/RiskList'
import { inHours, minutesOf } from '../../kit/hours'

/** What to open first in so many hours, and the whole collection in the order in which to look at it. */
export default function OpenFirst() {
  const [hours, setHours] = useState('4')
  const minutes = minutesOf(hours)
  const plan = useQuery({ ...openingsQuery(minutes), placeholderData: (before) => before })
  const risks = useInfiniteQuery(risksQuery(0))
  const first = risks.data?.pages[0]
  const most = Math.max(1, ...plan.data?.openings.flatMap(({ due }) => due.map((one) => one.overdueRatio)) ?? [])
  return (
    <Page>
      <PageHead>
        <Title>What to open first</Title>
        <Hours><Field label="Hours this month" value={hours} onChange={setHours} inputMode="decimal" /></Hours>
      </PageHead>
      <p><Faint>An order, not a probability: months since the last look, by how often a part of that age should be
        looked at, times what happens when it fails. <Link to="/diary/ageing">How often, and why</Link></Faint></p>
      {plan.error && <Notice tone="stop" word="Not planned.">{messageOf(plan.error)}</Notice>}
      {plan.data && (
        <Part title={`In ${inHours(minutes)}`}
          faint={`${counted(plan.data.openings)}, ${inHours(plan.data.minutes)}; ${String(
            plan.data.waiting)} more wait`}>
          {plan.data.openings.length === 0 && <p>
            {plan.data.waiting > 0
              ? 'The time is too short for any of them; a machine takes three quarters of an hour and more.'
                : 'Nothing is overdue.'}
          </p>}
          <Openings>
            {plan.data.openings.map(({ machine, minutes: takes, timed, due, more }) => (
              <li key={`${String(machine.id)} ${String(due[0]?.assemblyId)}`}>
                <strong><Link to={placeOf({ machine, assemblyId: due[0]?.assemblyId ?? 0 })}>
                  {machine.accession || 'Stores:'} {machine.name}</Link></strong>{' '}
                <Faint>{[machine.place, `${inHours(takes)}${timed ? ', as timed last time' : ''}`].filter(Boolean)
                  .join(' · ')}</Faint>
                <RiskList risks={due} most={most} />
                {more > 0 && <p>and {more} more</p>}
              </li>
            ))}
          </Openings>
        </Part>
      )}
      <Part title="The whole order"
        faint={first && `${first.due.toLocaleString('en')} of ${first.total.toLocaleString('en')} overdue`}>
        {risks.error && <Notice tone="stop" word="Not ranked.">{messageOf(risks.error)}</Notice>}
        {first?.total === 0 && <p>Nothing on the sheets is known to age. Batteries, safety capacitors, belts and the
          like are found by their lines.</p>}
        <RiskList withMachine risks={risks.data?.pages.flatMap((page) => page.risks) ?? []} />
        {risks.hasNextPage && <Buttons>
          <Button isPending={risks.isFetchingNextPage} onPress={() => void risks.fetchNextPage()}>Show more</Button>
        </Buttons>}
      </Part>
    </Page>
  )
}

/** How many machines are to be opened, and how many boards in store to be fetched. */
function counted(openings: Schemas['Opening'][]) {
  const many = (count: number, one: string, more: string) => count === 1 ? `1 ${one}` : `${String(count)} ${more}`
  const machines = openings.filter(({ machine }) => machine.id > 0).length
  const boards = openings.length - machines
  return [many(machines, 'machine', 'machines'), boards > 0 && many(boards, 'board in store', 'boards in store')]
    .filter(Boolean).join(', ')
}

const Hours = styled.div`
  && { flex: none; width: 160px; }
`
const Openings = styled.ol`
  > li { padding: ${space(1)} 0; border-bottom: 1px solid ${color.line}; }
`
