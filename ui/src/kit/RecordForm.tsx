import type { FormEvent, ReactNode } from 'react'

import { messageOf, ProblemError } from '../api/problem'
import { Button, Buttons } from './Button'
import { FormPanel } from './Field'
import { Notice } from './Notice'

type Props = {
  error: Error | null
  /** Messages by field that need no server, as for letters where a figure belongs. */
  wrong?: Record<string, string>
  isPending: boolean
  action: string
  leave?: string
  onSubmit: (form: FormData) => void
  onCancel: () => void
  children: ReactNode
}

/** A form for a record. Errors stand at their fields, or below; what was typed stays whatever the server says. */
export function RecordForm({ error, wrong = {}, isPending, action, leave = 'Leave it', onSubmit, onCancel,
  children }: Props) {
  const fields = { ...(error instanceof ProblemError ? error.fields : {}), ...wrong }
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    event.stopPropagation() // a form in a dialog over another form is none of the other's business
    onSubmit(new FormData(event.currentTarget))
  }
  return (
    <FormPanel onSubmit={submit} validationErrors={fields} validationBehavior="aria">
      {children}
      {error && !Object.keys(fields).length && <Notice tone="stop" word="Not kept.">{messageOf(error)}</Notice>}
      <Buttons>
        <Button $tone="main" type="submit" isPending={isPending}>{action}</Button>
        <Button onPress={onCancel}>{leave}</Button>
      </Buttons>
    </FormPanel>
  )
}

/** What a field of a form holds, without white space around it. */
export const textOf = (form: FormData, name: string) => String(form.get(name) ?? '').trim()
