import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { populationQuery, useWriteMemoryRules } from '../../../../api/setup'
import { Button } from '../../../../kit/Button'
import { EditRecord } from '../../../../kit/EditRecord'
import { Field } from '../../../../kit/Field'
import { ListTable, Scroll } from '../../../../kit/ListTable'
import { Mark } from '../../../../kit/Mark'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { Skeleton } from '../../../../kit/Skeleton'
import { spotAddress } from '../../../../kit/spot'
import { usePanel } from '../../../../kit/usePanel'
import { useSettled } from '../../../../kit/useSettled'
import { MemoryRulesForm } from './MemoryRulesForm'
import { ModulePlans } from './ModulePlans'

/** Which memory modules stand in their sockets, whether they may,
  and what could stand instead from what lies in the stores. */
export function ModulesPart({ machine, mayWrite }: { machine: Machine; mayWrite: boolean }) {
  const [want, setWant] = useState('')
  const settled = useSettled(want.trim(), 400)
  const standing = useQuery(populationQuery(machine.id, ''))
  const told = useQuery(populationQuery(machine.id, settled))
  const [editing, setEditing] = usePanel('modules')
  const change = useWriteMemoryRules(machine.id)
  // What cannot be reckoned leaves what stands there, and what was typed.
  const all = told.data ?? standing.data
  return (
    <Part title="Memory modules" faint="Which may stand where, and what could"
      action={mayWrite && all && !editing && <Button $small onPress={() => { setEditing(true) }}>
        {all.hasRules ? 'Change the rules' : 'Say which modules it takes'}</Button>}>
      {!all && !standing.error && <Skeleton what="Memory modules" lines={3} />}
      {editing && all && <EditRecord keptAs={`memory rules of ${String(machine.id)}`} record={all.rules} change={change}
        newerIn={(newer) => newer.memoryRules} names={{ rules: 'rules', note: 'note' }} onDone={() => { setEditing(false) }}>
        {(form) => <MemoryRulesForm start={all.rules} offered={all.offered} {...form} />}
      </EditRecord>}
      {all && !all.hasRules && !editing && <p><Faint>Nobody wrote down yet which modules it takes, and in which banks.</Faint></p>}
      {all?.hasRules && !editing && (
        <>
          <p role="status">{all.legal ? <><Mark kind="done" /> {all.amount} fitted; no rule that is written down is
            broken.</> : <><Mark kind="problem" /> {all.amount} fitted; {all.broken.map(({ why, sockets }) =>
            `${why} (${sockets.join(', ')})`).join('; ')}.</>}</p>
          <Scroll>
            <ListTable>
              <thead><tr>{all.sockets.map(({ socket }) => <th key={socket}>{socket}</th>)}</tr></thead>
              <tbody><tr>{all.sockets.map(({ socket, module, assemblyId, line }) => <td key={socket}>
                {assemblyId > 0 ? <Link to={spotAddress(machine.id, { assembly: assemblyId, line })}>{module || 'empty'}</Link>
                  : <Faint>not on a sheet</Faint>}</td>)}</tr></tbody>
            </ListTable>
          </Scroll>
          <Field label="How much is wanted" value={want} onChange={setWant} placeholder="8 MB, or max"
            hint="Empty for what is nearest and may stand" />
          {told.error && <Notice tone="stop" word="Not reckoned.">{messageOf(told.error)}</Notice>}
          {!told.error && <ModulePlans all={all} />}
          {all.rules.note && <p>{all.rules.note}</p>}
          {all.remarks.map((remark) => <p key={remark}><Faint>{remark}.</Faint></p>)}
        </>
      )}
      {standing.error && !all && <Notice tone="stop" word="Not read.">{messageOf(standing.error)}</Notice>}
    </Part>
  )
}
