import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'

import { type MachineMove, type Location, useMoveMachine } from '../../../../api/dossier'
import { type Machine, placesQuery } from '../../../../api/machines'
import { ProblemError } from '../../../../api/problem'
import { useAccount } from '../../../../api/session'
import { today } from '../../../../features/history/moment'
import { Button } from '../../../../kit/Button'
import { ChangedMeanwhile } from '../../../../kit/ChangedMeanwhile'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { Part } from '../../../../kit/Part'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { usePanel } from '../../../../kit/usePanel'
import { color, font, space } from '../../../../theme'

/** Where the machine is and was, and the way to somewhere else. */
export function Locations({ machine, locations }: { machine: Machine; locations: Location[] }) {
  const mayMove = useAccount()?.mayWriteSheets ?? false
  const [moving, setMoving] = usePanel('move')
  return (
    <Part title="Where it is"
      action={mayMove && <Button $small aria-expanded={moving} onPress={() => { setMoving(!moving) }}>
        Move the machine
      </Button>}>
      {moving && <MoveMachine machine={machine} onDone={() => { setMoving(false) }} />}
      {locations.length === 0 && <p>Where it is is not written down.</p>}
      <Line>
        {locations.map((location) => (
          <li key={location.id} data-now={location.until === null || undefined}>
            <time dateTime={location.since}>{location.since}</time>
            <span>{where(location)}{location.note && `: ${location.note}`}{location.until && <em> until {location.until}</em>}</span>
          </li>
        ))}
      </Line>
    </Part>
  )
}

function where({ place, lentTo, boundFor, due }: Location) {
  if (lentTo) return `on loan to ${lentTo}${due ? `, to be back by ${due}` : ''}`
  if (boundFor) return `in transit to ${boundFor}`
  return place
}

const goals: { value: MachineMove['to']; text: string }[] = [
  { value: 'place', text: 'to a place' }, { value: 'loan', text: 'on loan' }, { value: 'transit', text: 'in transit' },
]

function MoveMachine({ machine, onDone }: { machine: Machine; onDone: () => void }) {
  const places = useQuery(placesQuery)
  const [to, setTo] = useState<MachineMove['to']>('place')
  const [version, setVersion] = useState(machine.version)
  const move = useMoveMachine(machine.id)
  const newer = move.error instanceof ProblemError ? move.error.problem?.newer?.machine : undefined
  return (
    <>
      {newer && (
        <ChangedMeanwhile onGoOn={() => { setVersion(newer.version); move.reset() }} onDrop={onDone}>
          <p>It is at {newer.place || 'no place'} now.</p>
        </ChangedMeanwhile>
      )}
      <RecordForm
        keptAs={`move of machine ${String(machine.id)}`}
        error={newer ? null : move.error}
        isPending={move.isPending}
        action="Move it"
        leave="Cancel"
        onSubmit={(form) => {
          const text = (name: string) => textOf(form, name)
          move.mutate({ version, to, place: text('place'), lentTo: text('lentTo'), boundFor: text('boundFor'),
            due: text('due'), on: text('on'), note: text('note') }, { onSuccess: onDone })
        }}
        onCancel={onDone}
      >
        <FieldGrid>
          <Choice label="It goes" value={to} options={goals} onChange={setTo} />
          {to === 'place' && <Field label="Place" name="place" list="places-to-stay"
            hint="Building, room, shelf, box, divided by commas" autoFocus isRequired />}
          {to === 'loan' && <Field label="Lent to" name="lentTo" autoFocus isRequired />}
          {to === 'loan' && <Field label="To be back by" name="due" placeholder="2027-05-01" mono />}
          {to === 'transit' && <Field label="On its way to" name="boundFor" autoFocus isRequired />}
          <Field label="Day of the move" name="on" defaultValue={today()} mono />
          <Field label="Note" name="note" />
        </FieldGrid>
        <datalist id="places-to-stay">{places.data?.map((place) => <option key={place} value={place} />)}</datalist>
      </RecordForm>
    </>
  )
}

const Line = styled.ol`
  li {
    display: grid;
    grid-template-columns: 96px minmax(0, 1fr);
    gap: ${space(2)};
    padding: 2px 0 2px ${space(2)};
    border-left: 3px solid ${color.line};
    overflow-wrap: anywhere;
    color: ${color.faint};
  }
  li[data-now] { border-color: ${color.slate}; color: ${color.ink}; }
  time { font: 14px/24px ${font.mono}; }
`
