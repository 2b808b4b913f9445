import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { operatingQuery, useWriteOperatingCard } from '../../../../api/setup'
import { Button } from '../../../../kit/Button'
import { EditRecord } from '../../../../kit/EditRecord'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { usePanel } from '../../../../kit/usePanel'
import { OperatingForm } from './OperatingForm'
import { OperatingText } from './OperatingText'

/** How the machine is started, stopped and signed on to, and what is done at its panel. */
export function OperatingPart({ machine, mayWrite }: { machine: Machine; mayWrite: boolean }) {
  const told = useQuery(operatingQuery(machine.id))
  const [editing, setEditing] = usePanel('operating')
  const change = useWriteOperatingCard(machine.id)
  const { card, offered = [] } = told.data ?? {}
  const isWritten = Boolean(card && card.version > 0)
  return (
    <Part title="Operating card" faint="How it is started, stopped and signed on to"
      action={mayWrite && card && !editing && <Button $small onPress={() => { setEditing(true) }}>
        {isWritten ? 'Change the operating card' : 'Write its operating card'}</Button>}>
      {told.error && <Notice tone="stop" word="Not read.">{messageOf(told.error)}</Notice>}
      {editing && card && <EditRecord keptAs={`operating card of ${String(machine.id)}`} record={card} change={change}
        newerIn={(newer) => newer.operatingCard} names={{ start: 'start', stop: 'stop', signOn: 'signing on', keys: 'keys',
          panel: 'panel', note: 'note' }} onDone={() => { setEditing(false) }}>
        {(form) => <OperatingForm start={card} offered={offered} {...form} />}
      </EditRecord>}
      {card && isWritten && !editing && <>
        <OperatingText card={card} />
        <p><Link to={`/bench/${String(machine.id)}/operating-card`}>Print the operating card</Link></p>
      </>}
      {card && !isWritten && !editing && <p><Faint>Nobody wrote down yet how it is operated.</Faint></p>}
    </Part>
  )
}
