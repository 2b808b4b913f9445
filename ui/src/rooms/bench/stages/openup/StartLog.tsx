import { useState } from 'react'

import type { Schemas } from '../../../../api/client'
import type { Machine } from '../../../../api/machines'
import { type Procedure, useStartTeardown } from '../../../../api/openup'
import { Button, Buttons } from '../../../../kit/Button'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { Part } from '../../../../kit/Part'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { usePanel } from '../../../../kit/usePanel'
import { WarningList } from './WarningList'

type Props = { machine: Machine; procedures: Procedure[]; ahead: Schemas['WiringWarning'][]; mayWrite: boolean;
  hasBefore: boolean; onStarted: () => void }

/** Begins a log: what for, how large the tray is, and by which procedure. */
export function StartLog({ machine, procedures, ahead, mayWrite, hasBefore, onStarted }: Props) {
  const start = useStartTeardown(machine.id)
  const [isOpen, setOpen] = usePanel('log')
  const [procedure, setProcedure] = useState(String(procedures[0]?.id ?? ''))
  return (
    <Part title="Taking apart" faint={hasBefore ? 'It is closed.' : 'It was not opened with a log yet.'}>
      <WarningList title="Before anything is unplugged" warnings={ahead.filter(({ kind }) => kind !== 'not counted')} />
      {!isOpen && mayWrite && (
        <>
          <p>A log tells whoever puts it together, perhaps weeks later, what came off, where its screws lie and how
            each plug sat.</p>
          <Buttons>
            <Button $tone="main" onPress={() => { setOpen(true) }}>Begin to take {machine.accession} apart</Button>
          </Buttons>
        </>
      )}
      {isOpen && (
        <RecordForm
          keptAs={`log of ${String(machine.id)}`}
          error={start.error}
          isPending={start.isPending}
          action="Begin the log"
          onSubmit={(form) => {
            start.mutate(
              { purpose: textOf(form, 'purpose'), rows: Number(textOf(form, 'rows')) || 4,
                columns: Number(textOf(form, 'columns')) || 6, procedureId: Number(procedure) || undefined },
              { onSuccess: onStarted },
            )
          }}
          onCancel={() => { setOpen(false) }}
        >
          <Field label="What it is opened for" name="purpose" isRequired autoFocus
            placeholder="to take the clock battery out" />
          <FieldGrid>
            <Field label="Rows of the tray" name="rows" defaultValue="4" inputMode="numeric" />
            <Field label="Columns of the tray" name="columns" defaultValue="6" inputMode="numeric" />
            {procedures.length > 0 && (
              <Choice label="By the procedure" value={procedure}
                options={[...procedures.map(({ id, title }) => ({ value: String(id), text: title })),
                  { value: '', text: 'without one' }]} onChange={setProcedure} />
            )}
          </FieldGrid>
        </RecordForm>
      )}
    </Part>
  )
}
