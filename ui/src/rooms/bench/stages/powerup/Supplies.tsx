import { useState } from 'react'
import { Link } from 'react-router'

import { type Supply, type SupplyFields, useAddSupply, useChangeSupply, useVoidSupply } from '../../../../api/power'
import { Button, Buttons } from '../../../../kit/Button'
import { EditRecord } from '../../../../kit/EditRecord'
import { Notice } from '../../../../kit/Notice'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { Facts, InHand, Part } from '../../../../kit/Part'
import { usePanel } from '../../../../kit/usePanel'
import type { PowerProps } from './PowerUp'
import { kindsOfSupply, SupplyForm } from './SupplyForm'

/** What feeds the machine: plate, selector, source, and when somebody inspected it. */
export function Supplies({ machine, power, mayWrite }: PowerProps) {
  const [adding, setAdding] = usePanel('supply')
  const add = useAddSupply(machine.id)
  return (
    <Part title="Supplies" action={mayWrite && !adding && <Button $small onPress={() => { setAdding(true) }}>
      Say what feeds it</Button>}>
      {power.supplies.length === 0 && !adding && <p>Nobody said what feeds it.</p>}
      {power.noMains && <Notice tone="attention" word="The local mains is not known.">
          Whoever keeps the record says in <Link to="/account?open=collection">the settings of the collection</Link> what
          comes out of the wall here.
        </Notice>}
      {adding && <SupplyForm keptAs={`supply of ${String(machine.id)}`} action="Save" error={add.error}
        isPending={add.isPending} onCancel={() => { setAdding(false) }}
        onSubmit={(fields) => { add.mutate(fields, { onSuccess: () => { setAdding(false) } }) }} />}
      {power.supplies.map((supply) => <One key={supply.id} supply={supply} mayWrite={mayWrite} />)}
    </Part>
  )
}

function One({ supply, mayWrite }: { supply: Supply; mayWrite: boolean }) {
  const [editing, setEditing] = useState(false)
  const voiding = useVoidSupply()
  const change = useChangeSupply(supply.id)
  if (editing) {
    return (
      <EditRecord<Supply, SupplyFields & { version: number }> keptAs={`supply ${String(supply.id)}`} record={supply}
        change={change} newerIn={(newer) => newer.supply} names={names} onDone={() => { setEditing(false) }}>
        {(form) => <SupplyForm start={supply} action="Save" {...form} />}
      </EditRecord>
    )
  }
  return (
    <InHand>
      <h3>{supply.name} <Faint>{kindsOfSupply[supply.kind]}</Faint></h3>
      <Facts>{factsOf(supply).map(([what, how]) => <Row key={what} what={what} how={how} />)}</Facts>
      {mayWrite && (
        <Buttons>
          <Button $small onPress={() => { setEditing(true) }} aria-label={`Edit ${supply.name}`}>Edit</Button>
          <Button $small $tone="quiet" isPending={voiding.isPending} aria-label={`Delete ${supply.name}`}
            onPress={() => { voiding.mutate(supply) }}>Delete</Button>
        </Buttons>
      )}
      <NotSaved error={voiding.error} />
    </InHand>
  )
}

function Row({ what, how }: { what: string; how: string }) {
  return <><dt>{what}</dt><dd>{how}</dd></>
}

function factsOf(s: Supply): [string, string][] {
  const plate = [s.plateVolts && `${s.plateVolts} V`, s.plateHz && `${s.plateHz} Hz`, s.platePolarity]
    .filter(Boolean).join(', ')
  const facts: [string, string | undefined][] = [
    ['Plate', plate || (s.kind === 'battery' ? undefined : 'not read')],
    ['Selector', s.selector === undefined ? undefined : `at ${String(s.selector)} V`],
    ['What feeds it', s.sourceVolts === undefined ? undefined
      : [`${String(s.sourceVolts)} V`, s.sourcePolarity].filter(Boolean).join(', ')],
    ['Inspected', s.inspectedOn ? [s.inspectedOn, s.inspectedBy].filter(Boolean).join(', ') : 'not yet'],
    ['Moved', s.movedOn], ['Ran last', s.ranOn],
    ['Rails that are needed', s.needs?.join(', ')],
    ['Rated', s.rating?.map(({ rail, amperes }) => `${rail} ${String(amperes)} A`).join(', ')],
    ['Starts', s.startsWithMains ? 'as soon as mains arrives' : undefined], ['Note', s.note],
  ]
  return facts.filter((one): one is [string, string] => Boolean(one[1]))
}

const names: Partial<Record<keyof Supply, string>> = { name: 'name', kind: 'kind', plateVolts: 'volts of the plate',
  plateHz: 'frequency of the plate', selector: 'selector', inspectedOn: 'inspected', movedOn: 'moved', ranOn: 'ran last',
  needs: 'rails that are needed', note: 'note' }
