import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { FittedAssembly } from '../../../../../api/assemblies'
import type { Schemas } from '../../../../../api/client'
import { placesQuery } from '../../../../../api/machines'
import { fittingsQuery, type Move, useMove } from '../../../../../api/moves'
import { ProblemError } from '../../../../../api/problem'
import { today } from '../../../../../features/history/moment'
import { Button } from '../../../../../kit/Button'
import { ChangedMeanwhile } from '../../../../../kit/ChangedMeanwhile'
import { Choice, Field, FieldGrid } from '../../../../../kit/Field'
import { RecordForm, textOf } from '../../../../../kit/RecordForm'
import { type Fit, fits } from '../BoardForm'
import { PickMachine } from '../../../../../features/machines/PickMachine'

type To = Move['to']

const goals: { value: To; text: string }[] = [
  { value: 'place', text: 'to a place' },
  { value: 'machine', text: 'into a machine' },
  { value: 'loan', text: 'on loan' },
]

const actions: Record<To, string> = { place: 'Take it there', machine: 'Put it into the machine', loan: 'Lend it' }

/** Takes an assembly out of where it is: to a place, into a machine, or on loan. */
export function MoveForm({ assembly, start = 'place', onDone }: { assembly: FittedAssembly; start?: To;
  onDone: () => void }) {
  const places = useQuery(placesQuery)
  const [to, setTo] = useState<To>(start)
  const [machineId, setMachineId] = useState<number | null>(null)
  const [fit, setFit] = useState<Fit>('later')
  const [version, setVersion] = useState(assembly.version)
  const move = useMove(assembly.id)
  const newer = move.error instanceof ProblemError ? move.error.problem?.newer?.assembly : undefined

  const back = wayBack(useQuery(fittingsQuery(assembly.id, assembly.version)).data)

  const submit = (form: FormData) => {
    const text = (name: string) => textOf(form, name)
    const whither = {
      place: { place: text('place') },
      machine: { machineId: machineId ?? 0, slot: text('slot'), fit },
      loan: { lentTo: text('lentTo'), due: text('due') },
    }
    move.mutate({ version, to, ...whither[to], on: text('on'), note: text('note') }, { onSuccess: onDone })
  }
  return (
    <>
      {newer && (
        <ChangedMeanwhile onGoOn={() => { setVersion(newer.version); move.reset() }} onDrop={onDone}>
          <p>It is version {newer.version} of {newer.title} now; look at its history.</p>
        </ChangedMeanwhile>
      )}
      <RecordForm keptAs={`move of board ${String(assembly.id)}`}
        error={newer ? null : move.error} isPending={move.isPending} action={actions[to]}
        leave="Cancel" onSubmit={submit} onCancel={onDone}>
        <FieldGrid>
          <Choice label="It goes" value={to} options={goals} onChange={setTo} />
          {to === 'place' && <Field label="Place" name="place" list="places-to-move" autoFocus isRequired />}
          {to === 'machine' && <PickMachine onPick={setMachineId} />}
          {to === 'machine' && <Field label="Slot" name="slot" mono />}
          {to === 'machine' && <Choice label="Fitted" value={fit} options={fits} onChange={setFit} />}
          {to === 'loan' && <Field label="Lent to" name="lentTo" autoFocus isRequired />}
          {to === 'loan' && <Field label="To be back by" name="due" placeholder="2027-05-01" mono />}
          <Field label="Day of the move" name="on" defaultValue={today()} mono />
          <Field label="Note" name="note" />
        </FieldGrid>
        {back && (
          <div><Button onPress={() => { move.mutate({ version, ...back.move }, { onSuccess: onDone }) }}>Bring it
            back: {back.words}</Button></div>
        )}
        <datalist id="places-to-move">{places.data?.map((place) => <option key={place} value={place} />)}</datalist>
      </RecordForm>
    </>
  )
}

/** Where an assembly that is lent, or out of its machine, was before. */
function wayBack(fittings: Schemas['Fitting'][] | undefined) {
  const [now, before] = fittings ?? []
  if (!now || !before || now.machineId || before.lentTo) return undefined
  const { machineId, accession, slot, fit, place } = before
  return machineId
    ? { words: `${accession}${slot && `, slot ${slot}`}`,
      move: { to: 'machine' as const, machineId, slot, fit: fit as Fit } }
    : { words: place, move: { to: 'place' as const, place } }
}
