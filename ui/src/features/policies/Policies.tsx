import { useQuery } from '@tanstack/react-query'
import { type ReactNode, useState } from 'react'
import styled from 'styled-components'

import { collectionQuery } from '../../api/collection'
import { messageOf } from '../../api/problem'
import { policiesQuery, type Policy, policyCostsQuery, useChoose } from '../../api/work'
import { amountOf } from '../../kit/amount'
import { Button } from '../../kit/Button'
import { Choice, Field, FieldGrid } from '../../kit/Field'
import { inHours } from '../../kit/hours'
import { Figure, Scroll, StackedTable } from '../../kit/ListTable'
import { Notice } from '../../kit/Notice'
import { NotSaved } from '../../kit/NotSaved'
import { Faint } from '../../kit/Page'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { color, space } from '../../theme'

/** Questions of restoration, each with what was decided: for a machine, or for 0 for the collection. */
export function Policies({ machineId, mayDecide }: { machineId: number; mayDecide: boolean }) {
  const policies = useQuery(policiesQuery(machineId))
  const [deciding, setDeciding] = useState('')
  if (policies.error) return <Notice tone="stop" word="Not read.">{messageOf(policies.error)}</Notice>
  return (
    <Questions>
      {policies.data?.map((policy) => (
        <li key={policy.key}>
          <Row>
            <div><strong>{policy.title}:</strong> <Decided policy={policy} /></div>
            {mayDecide && deciding !== policy.key && <Button $small $tone="quiet" aria-label={`Decide: ${policy.title}`}
              onPress={() => { setDeciding(policy.key) }}>Decide</Button>}
          </Row>
          {deciding === policy.key && <Decide machineId={machineId} policy={policy} onDone={() => { setDeciding('') }} />}
          {machineId > 0 && mayDecide && policy.hasPieces && <Beside machineId={machineId} policy={policy} />}
        </li>
      ))}
    </Questions>
  )
}

/** What counts, whose choice that is, and what it means. */
function Decided({ policy }: { policy: Policy }) {
  const option = policy.options.find(({ key }) => key === policy.chosen)
  if (!option) return <Faint>nobody decided</Faint>
  const own = policy.own?.option ? policy.own : undefined
  const by = own ?? policy.collection
  return <>{option.title} <Faint>{policy.own && (own ? 'for this machine: ' : 'as the collection does. ')}{own?.why && `${own.why}. `}
    {[by.by, by.on].filter(Boolean).join(', ')}</Faint><div><Faint>{option.means}</Faint></div></>
}

function Decide({ machineId, policy, onDone }: { machineId: number; policy: Policy; onDone: () => void }) {
  const before = policy.own ?? policy.collection
  const [option, setOption] = useState(before.option ?? '')
  const choose = useChoose(machineId, policy.key)
  const chosen = policy.options.find(({ key }) => key === option)
  return (
    <RecordForm keptAs={`policy ${policy.key} of ${String(machineId)}`} base={before} error={choose.error} isPending={choose.isPending}
      action="Save" onCancel={onDone} onSubmit={(data) => {
        choose.mutate({ version: before.version, option, why: textOf(data, 'why'), by: textOf(data, 'by') }, { onSuccess: onDone })
      }}>
      <Choice label="Decision" name="option" value={option} onChange={setOption} options={[{ value: '', text: policy.own
        ? 'as the collection does' : 'undecided' }, ...policy.options.map(({ key, title }) => ({ value: key, text: title }))]} />
      {chosen && <p>{chosen.means} {reversible[chosen.reversible]}</p>}
      <FieldGrid>
        <Field label="Why" name="why" defaultValue={before.why} isRequired={policy.own !== null && option !== ''} />
        <Field label="Decided by" name="by" defaultValue={before.by} hint="You, where it is left empty" />
      </FieldGrid>
    </RecordForm>
  )
}

const reversible = { '': '', yes: 'It can be undone.', partly: 'It can be undone in part.', no: 'It cannot be undone.' } as const

/** What each option takes at this machine, one beside the other. */
function Beside({ machineId, policy }: { machineId: number; policy: Policy }) {
  const [isOpen, setOpen] = useState(false)
  return (
    <details onToggle={(event) => { setOpen(event.currentTarget.open) }}>
      <summary>What each way takes</summary>
      {isOpen && <Costs machineId={machineId} policy={policy} />}
    </details>
  )
}

function Costs({ machineId, policy }: { machineId: number; policy: Policy }) {
  const costs = useQuery(policyCostsQuery(machineId, policy.key))
  const currency = useQuery(collectionQuery).data?.currency ?? ''
  if (costs.error) return <NotSaved error={costs.error} />
  const shown = costs.data?.filter(({ pieces }) => pieces > 0) ?? []
  if (costs.data && shown.length === 0) return <p><Faint>The sheets tell of no part that this is about.</Faint></p>
  return (
    <Scroll>
      <StackedTable>
        <thead><tr><th>Way</th><Figure as="th">Parts</Figure><Figure as="th">Takes</Figure><Figure as="th">Price</Figure>
          <th>Needs</th><th>Undone</th></tr></thead>
        <tbody>
          {shown.map((cost) => {
            const option = policy.options.find(({ key }) => key === cost.option)
            return (
              <tr key={cost.option} aria-current={cost.option === policy.chosen || undefined}>
                <td><strong>{option?.title}</strong>{cost.option === policy.chosen && ' (decided)'}</td>
                <Figure data-head="Parts">{cost.pieces} <Faint>on {cost.boards}</Faint></Figure>
                <Figure data-head="Takes">{inHours(cost.minutes)}</Figure>
                <Figure data-head="Price"><Price cents={cost.cents} unpriced={cost.unpriced} currency={currency} /></Figure>
                <td data-head="Needs">{cost.needs.map(({ what, count }) => `${String(count)} x ${what}`).join('; ') || 'nothing'}</td>
                <td data-head="Undone">{option?.reversible || 'not said'}</td>
              </tr>
            )
          })}
        </tbody>
      </StackedTable>
      <p><Faint>Hours by rule of thumb: so many a board, and so many a piece. Prices as the stores and open orders tell
        them.</Faint></p>
    </Scroll>
  )
}

function Price({ cents, unpriced, currency }: { cents: number; unpriced: number; currency: string }): ReactNode {
  if (cents === 0 && unpriced === 0) return 'nothing'
  return <>{cents > 0 && `${amountOf(cents)} ${currency}`}{unpriced > 0 && <> <Faint>{cents > 0 && 'and '}
    {unpriced} of unknown price</Faint></>}</>
}

const Questions = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  li { padding: ${space(1)} 0; border-bottom: 1px solid ${color.line}; }
  summary { cursor: pointer; padding: 4px 0; }
`
const Row = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: start;
  gap: ${space(1)};
  > div { min-width: 0; }
`
