import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { type Adjuster, adjustersQuery, useNoteAdjuster, useTurnAdjuster } from '../../../../api/judge'
import { Button } from '../../../../kit/Button'
import { Cautions } from '../../../../kit/Cautions'
import { Field, FieldGrid } from '../../../../kit/Field'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { usePanel } from '../../../../kit/usePanel'

/** Trimmers and controls: what each does, where it stood before a turn, and after. */
export function Adjusters({ machineId, mayWrite }: { machineId: number; mayWrite: boolean }) {
  const adjusters = useQuery(adjustersQuery(machineId)).data ?? []
  const note = useNoteAdjuster(machineId)
  const [adding, setAdding] = usePanel('adjuster')
  const [turning, setTurning] = useState<number>()
  if (adjusters.length === 0 && !mayWrite) return null
  return (
    <Part title="Adjusters" faint="Trimmers and geometry controls"
      action={mayWrite && !adding && <Button $small onPress={() => { setAdding(true) }}>Note an adjuster</Button>}>
      {adding && (
        <RecordForm
          keptAs={`adjuster of ${String(machineId)}`}
          error={note.error}
          isPending={note.isPending}
          action="Save"
          onSubmit={(form) => {
            const text = (name: string) => textOf(form, name)
            note.mutate({ name: text('name'), place: text('place'), does: text('does'), position: text('position') },
              { onSuccess: () => { setAdding(false) } })
          }}
          onCancel={() => { setAdding(false); note.reset() }}
        >
          <FieldGrid>
            <Field label="Which one" name="name" isRequired autoFocus placeholder="VR3" />
            <Field label="Where it is" name="place" placeholder="deflection board, left edge" />
            <Field label="What turning it does" name="does" isRequired placeholder="width of the picture" />
            <Field label="Where it stands now" name="position" isRequired placeholder="two o'clock" />
          </FieldGrid>
        </RecordForm>
      )}
      <ul>
        {adjusters.map((one) => (
          <li key={one.id}>
            <Cautions cautions={one.cautions} />
            <strong>{one.name}</strong>{one.place && `, ${one.place}`}: {one.does}. It stands at <strong>
              {one.position}
            </strong>.{' '}
            {mayWrite && <Button $tone="quiet" aria-label={`Turn ${one.name}`} onPress={() => { setTurning(one.id) }}>
              It was turned
            </Button>}
            {one.turns.map((turn,
              i) => <div key={i}>
                <Faint>{turn.on}{turn.by && `, ${turn.by}`}: from {turn.before} to {turn.after}; {turn.why}</Faint>
              </div>)}
            {turning === one.id && <Turn machineId={machineId} adjuster={one}
              onDone={() => { setTurning(undefined) }} />}
          </li>
        ))}
      </ul>
    </Part>
  )
}

function Turn({ machineId, adjuster, onDone }: { machineId: number; adjuster: Adjuster; onDone: () => void }) {
  const turn = useTurnAdjuster(machineId)
  return (
    <RecordForm
      keptAs={`turn of adjuster ${String(adjuster.id)}`}
      error={turn.error}
      isPending={turn.isPending}
      action={`Note the turn of ${adjuster.name}`}
      onSubmit={(form) => {
        turn.mutate({ id: adjuster.id, version: adjuster.version, position: textOf(form, 'position'),
          why: textOf(form, 'why') }, { onSuccess: onDone })
      }}
      onCancel={onDone}
    >
      <FieldGrid>
        <Field label={`From ${adjuster.position ?? ''} to`} name="position" isRequired autoFocus />
        <Field label="What for" name="why" isRequired placeholder="the picture was too narrow" />
      </FieldGrid>
    </RecordForm>
  )
}
