import { type FormEvent } from 'react'

import { useTakeOverSheet } from '../../../../api/assemblies'
import { messageOf } from '../../../../api/problem'
import { Button, Buttons } from '../../../../kit/Button'
import { Field, FormPanel } from '../../../../kit/Field'
import { Notice } from '../../../../kit/Notice'

const example = '== Main board | part 4410-2 | rev C\nU1         HX9040-2 8431\nU40-U48    41256-15 8512\n\n== Video card | slot 3 | fit later\nU1         6845 8436'

/** Takes a text with headings over: a board for each heading. */
export function PasteBoards({ machineId, onDone }: { machineId: number; onDone: (id?: number) => void }) {
  const take = useTakeOverSheet(machineId)
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    take.mutate(String(new FormData(event.currentTarget).get('text')), { onSuccess: (added) => { onDone(added[0]?.id) } })
  }
  return (
    <FormPanel onSubmit={submit}>
      <Field label="Sheet with headings" name="text" rows={10} mono autoFocus placeholder={example} hint="Each line that starts with == opens a board; the lines below it become its sheet, letter by letter." />
      {take.error && <Notice tone="stop" word="Not taken over.">{messageOf(take.error)}</Notice>}
      <Buttons>
        <Button $tone="main" type="submit" isPending={take.isPending}>Add the boards</Button>
        <Button onPress={() => { onDone() }}>Leave it</Button>
      </Buttons>
    </FormPanel>
  )
}
