import { useQuery } from '@tanstack/react-query'
import { Link, useNavigate } from 'react-router'

import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { type RoundSummary, roundsDueQuery, roundsQuery, useBeginRound } from '../../api/upkeep'
import { Button } from '../../kit/Button'
import { inHours } from '../../kit/hours'
import { Figure, Scroll, StackedTable } from '../../kit/ListTable'
import { Mark } from '../../kit/Mark'
import { Notice } from '../../kit/Notice'
import { NotSaved } from '../../kit/NotSaved'
import { Faint } from '../../kit/Page'
import { Part } from '../../kit/Part'

/** One task over many machines: what is due of each, and the rounds that are walked now. */
export function Rounds() {
  const due = useQuery(roundsDueQuery)
  const rounds = useQuery(roundsQuery).data ?? []
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const begin = useBeginRound()
  const navigate = useNavigate()
  const ended = rounds.filter(({ isOpen }) => !isOpen).slice(0, 5)
  return (
    <Part title="Rounds" faint="One task over many machines, in walking order">
      {due.error && <Notice tone="stop" word="Not reckoned.">{messageOf(due.error)}</Notice>}
      {due.data?.length === 0 && <p>No task is due. <Link to="/diary/upkeep">Rules of upkeep</Link> say what is done again
        and again.</p>}
      {due.data && due.data.length > 0 && (
        <Scroll>
          <StackedTable>
            <thead><tr><th>Task</th><Figure as="th">Stops</Figure><Figure as="th">Takes</Figure><th>Due since</th><td /></tr></thead>
            <tbody>
              {due.data.map(({ rule, stops, minutes, oldest, away, openRound }) => (
                <tr key={rule.id}>
                  <td><strong>{rule.task}</strong>{rule.model && ` (${rule.model})`}</td>
                  <Figure data-head="Stops">{stops}{away > 0 && <> <Faint>and {away} not in the house</Faint></>}</Figure>
                  <Figure data-head="Takes">{minutes > 0 ? inHours(minutes) : <Faint>not said</Faint>}</Figure>
                  <td data-head="Due since">{oldest}</td>
                  <td>{openRound !== null ? <Walked round={rounds.find(({ id }) => id === openRound)} id={openRound}
                    mayWrite={mayWrite} />
                    : mayWrite && stops > 0 && <Button $small isPending={begin.isPending && begin.variables.ruleId === rule.id}
                      aria-label={`Begin the round: ${rule.task}`} onPress={() => { begin.mutate({ ruleId: rule.id },
                        { onSuccess: ({ id }) => void navigate(`/diary/rounds/${String(id)}`) }) }}>Begin the round</Button>}</td>
                </tr>
              ))}
            </tbody>
          </StackedTable>
        </Scroll>
      )}
      <NotSaved error={begin.error} />
      {ended.length > 0 && <p><Faint>Lately: {ended.map((round, i) => <span key={round.id}>{i > 0 && '; '}<Link
        to={`/diary/rounds/${String(round.id)}`}>{round.task}, {round.on}</Link> ({round.done} of {round.stops})</span>)}
      </Faint></p>}
    </Part>
  )
}

function Walked({ round, id, mayWrite }: { round?: RoundSummary; id: number; mayWrite: boolean }) {
  return <><Mark kind="later" /> <Link to={`/diary/rounds/${String(id)}`}>{mayWrite ? 'Go on with' : 'See'} the round</Link>
    {round && ` (${String(round.done)} of ${String(round.stops)})`}</>
}
