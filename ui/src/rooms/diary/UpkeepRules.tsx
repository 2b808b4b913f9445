import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { type Rule, rulesQuery, useAddRule, useChangeRule, useVoidRule } from '../../api/upkeep'
import { Button, Buttons } from '../../kit/Button'
import { EditRecord } from '../../kit/EditRecord'
import { Figure, Scroll, StackedTable } from '../../kit/ListTable'
import { Notice } from '../../kit/Notice'
import { NotSaved } from '../../kit/NotSaved'
import { Faint, Page, PageHead, Title } from '../../kit/Page'
import { usePanel } from '../../kit/usePanel'
import { RuleForm } from './RuleForm'

/** What is done again and again, how often, and what always holds. */
export default function UpkeepRules() {
  const rules = useQuery(rulesQuery)
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [adding, setAdding] = usePanel('rule')
  const [editing, setEditing] = useState<number>()
  const add = useAddRule()
  return (
    <Page>
      <PageHead>
        <Title><Link to="/diary">Diary</Link> / Rules of upkeep</Title>
        {mayWrite && <div><Button $tone="main" onPress={() => { setAdding(true) }}>Write a rule</Button></div>}
      </PageHead>
      <p><Faint>A day follows from what was last done or seen, never from the last plan. Parts that age beside that are ranked
        under <Link to="/diary/open-first">What to open first</Link>.</Faint></p>
      {adding && <RuleForm keptAs="new rule of upkeep" action="Save" error={add.error} isPending={add.isPending}
        onCancel={() => { setAdding(false) }}
        onSubmit={(fields) => { add.mutate(fields, { onSuccess: () => { setAdding(false) } }) }} />}
      {rules.error && <Notice tone="stop" word="Not listed.">{messageOf(rules.error)}</Notice>}
      {rules.data?.length === 0 && !adding && <p>No rule is written yet. Measure every clock battery twice a year, or: this
        model needs its battery to start, and is stored without.</p>}
      {rules.data && rules.data.length > 0 && (
        <Scroll>
          <StackedTable>
            <thead><tr><th>Task</th><th>How often</th><th>Of</th><Figure as="th">Minutes</Figure><th>What counts</th><td /></tr></thead>
            <tbody>
              {rules.data.map((rule) => editing === rule.id
                ? <tr key={rule.id}><td colSpan={6}><Edit rule={rule} onDone={() => { setEditing(undefined) }} /></td></tr>
                : (
                  <tr key={rule.id}>
                    <td><strong>{rule.task}</strong>{rule.how && <div><Faint>{rule.how}</Faint></div>}</td>
                    <td>{rule.everyMonths === 0 ? 'always holds' : rule.everyMonths === 1 ? 'every month'
                      : `every ${String(rule.everyMonths)} months`}</td>
                    <td>{rule.className || 'machines'}{rule.model && <div>of the model {rule.model}</div>}</td>
                    <Figure data-head={rule.minutes ? 'Minutes' : undefined}>{rule.minutes || ''}</Figure>
                    <td>{rule.everyMonths > 0 && ['to do it', rule.looks && 'to look at it', rule.runs && 'to have it run']
                      .filter(Boolean).join(', ')}{rule.measures && <div><Faint>{rule.measures} are measured</Faint></div>}</td>
                    <td>{mayWrite && <Button $small $tone="quiet" aria-label={`Edit ${rule.task}`}
                      onPress={() => { setEditing(rule.id) }}>Edit</Button>}</td>
                  </tr>
                ))}
            </tbody>
          </StackedTable>
        </Scroll>
      )}
    </Page>
  )
}

function Edit({ rule, onDone }: { rule: Rule; onDone: () => void }) {
  const change = useChangeRule(rule.id)
  const voiding = useVoidRule()
  return (
    <>
      <EditRecord keptAs={`rule of upkeep ${String(rule.id)}`} record={rule} change={change} newerIn={(newer) => newer.rule}
        names={{ task: 'task', everyMonths: 'months', minutes: 'minutes', looks: 'a look counts', runs: 'to run counts', how: 'how' }}
        onDone={onDone}>
        {(form) => <RuleForm start={rule} action="Save" {...form} />}
      </EditRecord>
      <Buttons><Button $small $tone="quiet" isPending={voiding.isPending} aria-label={`Delete ${rule.task}`}
        onPress={() => { voiding.mutate(rule, { onSuccess: onDone }) }}>Delete</Button></Buttons>
      <NotSaved error={voiding.error} />
    </>
  )
}
