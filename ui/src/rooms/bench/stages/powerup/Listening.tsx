import { useState } from 'react'

import { type Capture, useListen, useStopListening, useTypeOnConsole } from '../../../../api/console'
import type { Machine } from '../../../../api/machines'
import { ConsoleStandIn } from '../../../../features/instruments/StandIn'
import { ConsoleLines } from '../../../../features/console/ConsoleLines'
import { Button, Buttons } from '../../../../kit/Button'
import { Field, FieldGrid, Tick } from '../../../../kit/Field'
import { Mark } from '../../../../kit/Mark'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

/** Begins to listen: first this, then the machine is switched on. */
export function ListenForm({ machine, onDone }: { machine: Machine; onDone: () => void }) {
  const listen = useListen(machine.id)
  return (
    <RecordForm keptAs={`console of ${String(machine.id)}`} error={listen.error} isPending={listen.isPending}
      action="Begin to listen" onCancel={onDone}
      onSubmit={(form) => {
        listen.mutate({ line: textOf(form, 'line'), during: textOf(form, 'during') }, { onSuccess: onDone })
      }}>
      <p><Faint>Listen first, then switch on: what it says at start comes once. What comes is kept as it comes.</Faint></p>
      <FieldGrid>
        <Field label="Speed and bits of the port" name="line" mono placeholder="9600 8N1"
          hint="As the port server is set; kept with what is heard" autoFocus />
        <Field label="What the machine is doing" name="during" placeholder="self-test" hint="Empty where that is not known" />
      </FieldGrid>
      <ConsoleStandIn />
    </RecordForm>
  )
}

/** What comes while somebody listens, a line to type on it, and the end of it. */
export function Listening({ capture, mayWrite }: { capture: Capture; mayWrite: boolean }) {
  const stop = useStopListening()
  const type = useTypeOnConsole(capture.id)
  const [typed, setTyped] = useState('')
  const [isSecret, setSecret] = useState(false)
  return (
    <div role="group" aria-label="Listening">
      <p role="status"><Mark kind="working" /> Listening{capture.line && ` at ${capture.line}`}. {capture.bytes} bytes came.
        {capture.bytes === 0 && ' Switch it on now.'}</p>
      <ConsoleLines said={capture.reading} label="What came so far" />
      {capture.linesLeft > 0 && <p><Faint>{capture.linesLeft} more lines came</Faint></p>}
      {mayWrite && (
        <form onSubmit={(event) => {
          event.preventDefault()
          type.mutate({ typed, secret: isSecret }, { onSuccess: () => { setTyped('') } })
        }}>
          <FieldGrid>
            <Field label="Type on its console" name="typed" value={typed} onChange={setTyped} mono
              hint="Enter sends it, with the return key; the history keeps it" />
            <Tick label="A secret: the history keeps only that something was typed" isOn={isSecret} onChange={setSecret} />
          </FieldGrid>
          <Buttons>
            <Button type="submit" $small isPending={type.isPending}>Send the line</Button>
            <Button $tone="main" isPending={stop.isPending} onPress={() => { stop.mutate(capture.id) }}>Stop listening</Button>
          </Buttons>
        </form>
      )}
      <NotSaved error={type.error ?? stop.error} />
    </div>
  )
}
