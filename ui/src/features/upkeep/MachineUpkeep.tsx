import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { machineUpkeepQuery, useDoUpkeep } from '../../api/upkeep'
import { Button } from '../../kit/Button'
import { late } from '../../kit/hours'
import { Mark } from '../../kit/Mark'
import { Notice } from '../../kit/Notice'
import { NotSaved } from '../../kit/NotSaved'
import { Faint } from '../../kit/Page'
import { Part } from '../../kit/Part'

/** What is done again and again at a machine: what always holds, what falls due, and what was done. */
export function MachineUpkeep({ machineId }: { machineId: number }) {
  const upkeep = useQuery(machineUpkeepQuery(machineId))
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const done = useDoUpkeep(machineId)
  return (
    <Part title="Upkeep" action={<Link to="/diary/upkeep">Rules of upkeep</Link>}>
      {upkeep.error && <Notice tone="stop" word="Not read.">{messageOf(upkeep.error)}</Notice>}
      <Always machineId={machineId} />
      {upkeep.data?.due.length === 0 && <p>No rule of upkeep has a day for it.</p>}
      <ul>
        {upkeep.data?.due.map((one) => (
          <li key={one.ruleId}>
            {one.overdueDays > 0 && <Mark kind="attention" />} {one.task}: {one.overdueDays > 0
              ? late(one.overdueDays) : one.overdueDays === 0 ? 'today' : `by ${one.on}`}{' '}
            <Faint>{one.because}</Faint>{' '}
            {mayWrite && <Button $small $tone="quiet" aria-label={`Done today: ${one.task}`}
              isPending={done.isPending && done.variables.ruleId === one.ruleId}
              onPress={() => { done.mutate({ ruleId: one.ruleId, how: 'did', saidAt: new Date().toISOString() }) }}>Done today</Button>}
          </li>
        ))}
      </ul>
      <NotSaved error={done.error} />
      {upkeep.data && upkeep.data.done.length > 0 && (
        <details>
          <summary>What was done ({upkeep.data.done.length})</summary>
          <ul>{upkeep.data.done.map((one) => (
            <li key={one.id}>{one.on}: {one.task}, {one.how === 'did' ? 'done' : one.how === 'seen' ? 'seen' : `not done: ${one.why}`}
              {[one.measured, one.found, one.takenOut && 'taken out', one.note].filter(Boolean).map((words) => `; ${String(words)}`)
                .join('')} <Faint>{one.by}{one.roundId !== null && <>, on <Link to={`/diary/rounds/${String(one.roundId)}`}>a
                  round</Link></>}</Faint></li>
          ))}</ul>
        </details>
      )}
    </Part>
  )
}

/** What always holds of a machine, by rules of its model or of what is in it. */
export function Always({ machineId }: { machineId: number }) {
  const always = useQuery(machineUpkeepQuery(machineId)).data?.always ?? []
  return always.map(({ id, task, how, model }) => (
    <Notice key={id} tone="attention" word={model ? `The ${model}:` : 'Always:'}>{task}{how && `. ${how}`}</Notice>
  ))
}
