import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { type ChangeEvent, type FormEvent, useDeferredValue } from 'react'
import styled from 'styled-components'

import { useTakeOverSheet } from '../../../../api/assemblies'
import { KeptForLater, messageOf } from '../../../../api/problem'
import { dryRunQuery } from '../../../../api/reckoning'
import { useKept } from '../../../../data/useDrafts'
import { Button, Buttons } from '../../../../kit/Button'
import { Field, FormPanel } from '../../../../kit/Field'
import { Notice } from '../../../../kit/Notice'
import { space, target } from '../../../../theme'
import { DryRun } from './DryRun'

const example =
  '== Main board | part 4410-2 | rev C\nU1         HX9040-2 8431\nU40-U48    41256-15 8512\n\n== Video card | slot 3 | fit later\nU1         6845 8436'

/** Takes a text with headings over, a board for each; first it says what would come of it. */
export function PasteBoards({ machineId, onDone }: { machineId: number; onDone: (id?: number) => void }) {
  const [text, change, forget] = useKept(`sheets to paste into ${String(machineId)}`, '')
  const setText = (next: string) => { change(() => next) }
  const take = useTakeOverSheet(machineId)
  const settled = useDeferredValue(text)
  const dryRun = useQuery({ ...dryRunQuery(settled), enabled: settled.trim() !== '',
    placeholderData: keepPreviousData })

  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    take.mutate(text, {
      onSuccess: (added) => { forget(); onDone(added[0]?.id) },
      onError: (error) => { if (error instanceof KeptForLater) { forget(); onDone() } },
    })
  }
  const read = async (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0]
    if (file) setText(await file.text())
  }
  return (
    <FormPanel onSubmit={submit}>
      <Field
        label="Sheet with headings" value={text} onChange={setText} rows={10} mono autoFocus placeholder={example}
        hint="Each line that starts with == opens a board; the lines below it become its sheet, letter by letter."
      />
      <FileLabel>or from a file <input type="file" accept=".sheet,.txt,text/plain" onChange={(event) =>
        void read(event)} /></FileLabel>
      {text.trim() !== '' && dryRun.error && <Notice tone="stop" word="Not readable.">
        {messageOf(dryRun.error)}
      </Notice>}
      {text.trim() !== '' && dryRun.data && <DryRun reckoned={dryRun.data} />}
      {take.error && <Notice tone="stop" word="Not taken over.">{messageOf(take.error)}</Notice>}
      <Buttons>
        <Button $tone="main" type="submit" isPending={take.isPending} isDisabled={text.trim() === ''}>
          Add the boards
        </Button>
        <Button onPress={() => { forget(); onDone() }}>Cancel</Button>
      </Buttons>
    </FormPanel>
  )
}

const FileLabel = styled.label`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${space(1)};
  input { min-height: ${target.small}; }
`
