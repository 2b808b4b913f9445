import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'

import { type Lot, type LotThing, nextNumberQuery, useThingBecomesMachine, useThingGoesToStore,
  useThingIsMachine } from '../../api/lots'
import { placesQuery } from '../../api/machines'
import { Choice, Field, FieldGrid } from '../../kit/Field'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { BoardForm } from '../bench/stages/takestock/BoardForm'
import { PickMachine } from '../../features/machines/PickMachine'
import { MachineForm } from '../collection/MachineForm'

type Goal = 'machine' | 'store' | 'known'
type Props = { lot: Lot; thing: LotThing; onDone: () => void }

const goals: { value: Goal; text: string }[] = [
  { value: 'machine', text: 'becomes a machine of the collection' },
  { value: 'store', text: 'goes to store, with a sheet of its own' },
  { value: 'known', text: 'is a machine that is entered already' },
]

/** Says what becomes of a thing of a lot. */
export function PlaceThing(props: Props) {
  const [goal, setGoal] = useState<Goal>(props.thing.kind === 'machine' ? 'machine' : 'store')
  return (
    <>
      <Choice label={`${props.thing.title} ...`} value={goal} options={goals} onChange={setGoal} />
      {goal === 'machine' && <AsMachine {...props} />}
      {goal === 'store' && <ToStore {...props} />}
      {goal === 'known' && <IsKnown {...props} />}
    </>
  )
}

function AsMachine({ lot, thing, onDone }: Props) {
  const next = useQuery(nextNumberQuery(lot.id))
  const become = useThingBecomesMachine(lot.id, thing.id)
  const navigate = useNavigate()
  if (next.isPending) return null
  return (
    <MachineForm
      keptAs={`thing ${String(thing.id)} as machine`}
      start={{ accession: next.data?.number ?? '', name: thing.title }}
      error={become.error}
      isPending={become.isPending}
      action="Enter it and take it onto the bench"
      leave="Cancel"
      onSubmit={(fields) => { become.mutate({ ...fields, version: lot.version }, { onSuccess: ({ id }) =>
        void navigate(`/bench/${String(id)}/arrive`) }) }}
      onCancel={onDone}
    />
  )
}

function ToStore({ lot, thing, onDone }: Props) {
  const places = useQuery(placesQuery)
  const go = useThingGoesToStore(lot.id, thing.id)
  return (
    <BoardForm
      keptAs={`thing ${String(thing.id)} to store`}
      start={{ title: thing.title, kind: thing.kind === 'board' ? 'card' : 'other' }}
      error={go.error}
      isPending={go.isPending}
      action="Take it into store"
      onSubmit={(fields, form) => { go.mutate({ ...fields, place: textOf(form, 'place'), version: lot.version },
        { onSuccess: onDone }) }}
      onCancel={onDone}
    >
      <Field label="Where it is" name="place" list="places-of-thing" isRequired />
      <datalist id="places-of-thing">{places.data?.map((place) => <option key={place} value={place} />)}</datalist>
    </BoardForm>
  )
}

function IsKnown({ lot, thing, onDone }: Props) {
  const [machineId, setMachineId] = useState<number | null>(null)
  const link = useThingIsMachine()
  return (
    <RecordForm
      keptAs={`thing ${String(thing.id)} is a machine`}
      error={link.error}
      isPending={link.isPending}
      action="It is this machine"
      onSubmit={() => { link.mutate({ id: lot.id, thing: thing.id, version: lot.version, machineId: machineId ?? -1 },
        { onSuccess: onDone }) }}
      onCancel={onDone}
    >
      <FieldGrid><PickMachine onPick={setMachineId} /></FieldGrid>
    </RecordForm>
  )
}
