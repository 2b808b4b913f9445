import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type MovedMany, useMoveMany } from '../../api/dossier'
import type { Schemas } from '../../api/client'
import { placesQuery } from '../../api/machines'
import { useAccount } from '../../api/session'
import { today } from '../../features/history/moment'
import { Button, Buttons } from '../../kit/Button'
import { Field, FieldGrid } from '../../kit/Field'
import { Notice } from '../../kit/Notice'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { color, space } from '../../theme'

type Machine = Schemas['ListedMachine']

/** What can be done with the machines that were chosen in the list. */
export function Chosen({ chosen, machines, onClear }: { chosen: ReadonlySet<number>; machines: Machine[];
  onClear: () => void }) {
  const mayMove = useAccount()?.mayWriteSheets ?? false
  const [moving, setMoving] = useState(false)
  const move = useMoveMany()
  if (chosen.size === 0) return null
  const ids = new URLSearchParams([...chosen].map((id) => ['id', String(id)])).toString()
  const count = chosen.size === 1 ? '1 machine' : `${chosen.size.toLocaleString('en')} machines`
  return (
    <Box aria-label="Chosen machines">
      <Buttons>
        <strong role="status">{count} chosen</strong>
        {mayMove && !moving && <Button $small onPress={() => { setMoving(true) }}>Move them</Button>}
        <Link to={`/collection/labels?${ids}`}>Print labels</Link>
        <a href={`/api/machines.csv?${ids}`} download>Export as CSV</a>
        <Button $small $tone="quiet" onPress={onClear}>Choose none</Button>
      </Buttons>
      {moving && <MoveMany move={move} onDone={() => { setMoving(false) }}
        onMove={(to) => { move.mutate({ ids: [...chosen], ...to }) }} />}
      {move.data && <Result moved={move.data} machines={machines} />}
    </Box>
  )
}

function MoveMany({ move, onMove, onDone }: { move: ReturnType<typeof useMoveMany>; onDone: () => void;
  onMove: (to: { place: string; on: string; note: string }) => void }) {
  const places = useQuery(placesQuery).data ?? []
  return (
    <RecordForm keptAs="move of many machines" error={move.error} isPending={move.isPending} action="Move them"
      onSubmit={(form) => {
        onMove({ place: textOf(form, 'place'), on: textOf(form, 'on'), note: textOf(form, 'note') })
      }}
      onCancel={onDone}>
      <FieldGrid>
        <Field label="Place" name="place" list="places-for-many" isRequired autoFocus
          hint="Building, room, shelf, box, divided by commas" />
        <Field label="Day" name="on" defaultValue={today()} mono />
        <Field label="Note" name="note" />
      </FieldGrid>
      <datalist id="places-for-many">{places.map((place) => <option key={place} value={place} />)}</datalist>
    </RecordForm>
  )
}

/** Each machine was moved for itself: those that were not are named with why. */
function Result({ moved, machines }: { moved: MovedMany; machines: Machine[] }) {
  const nameOf = (id: number) => machines.find((one) => one.id === id)?.accession ?? `machine ${String(id)}`
  return (
    <>
      {moved.done > 0 && <p role="status">{moved.done === 1 ? '1 is moved' : `${String(moved.done)} are moved`}; each
        can be taken back in its history.</p>}
      {moved.failed.length > 0 && <Notice tone="attention" word="Not moved:">
        <ul>{moved.failed.map(({ id, why }) => <li key={id}>{nameOf(id)}: {why}</li>)}</ul>
      </Notice>}
    </>
  )
}

const Box = styled.section`
  position: sticky;
  top: 0;
  z-index: 2;
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  padding: ${space(1)} ${space(2)};
  border: 1px solid ${color.slate};
  background: ${color.sheet};
`
