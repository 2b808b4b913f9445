import { type FormEvent, type ReactNode, useEffect, useEffectEvent, useState } from 'react'

import { KeptForLater, messageOf, ProblemError } from '../api/problem'
import { draftOf, keepUnder } from '../data/drafts'
import { sending } from '../data/sending'
import { moment } from '../features/history/moment'
import { Button, Buttons } from './Button'
import { FormPanel } from './Field'
import { type FormMemory, Memory } from './formMemory'
import { Notice } from './Notice'

type Props = {
  /** The name under which the device keeps what is typed until it is sent; null where nothing is to be kept. */
  keptAs: string | null
  /** The record that is edited, as it was when the typing began. */
  base?: unknown
  error: Error | null
  /** Messages by field that need no server, as for letters where a figure belongs. */
  wrong?: Record<string, string>
  isPending: boolean
  action: string
  leave?: string
  onSubmit: (form: FormData) => void
  onCancel: () => void
  /** What comes after it was kept here for want of a connection; else the form is left. */
  onKept?: () => void
  children: ReactNode
}

/** What is kept of a form: its fields by name, and the record that it was begun on. */
export type KeptForm = { fields: Record<string, unknown>; base?: unknown }

/** A form for a record. Errors stand at their fields, or below; what was typed stays whatever the server says. */
export function RecordForm({ keptAs, base, error, wrong = {}, isPending, action, leave = 'Cancel', onSubmit, onCancel,
  onKept = onCancel, children }: Props) {
  const [anew, setAnew] = useState(0)
  const [since, setSince] = useState(() => keptAs === null ? undefined : draftOf(keptAs)?.at)
  const [memory] = useState(() => memoryOf(keptAs, base))
  const isKept = error instanceof KeptForLater
  const leaveAsKept = useEffectEvent(onKept)
  // It waits in the outbox, which says so on every page.
  useEffect(() => { if (isKept) leaveAsKept() }, [isKept])
  const fields = { ...(error instanceof ProblemError ? error.fields : {}), ...wrong }
  const [shown, setShown] = useState<string[]>([])
  // What is wrong with something that is no line of this form is said below it.
  const rest = Object.entries(fields).filter(([name]) => !shown.includes(name)).map(([, message]) => message)
  const forget = () => { if (keptAs !== null) keepUnder(keptAs, undefined) }
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    event.stopPropagation() // a form in a dialog over another form is none of the other's business
    const form = new FormData(event.currentTarget)
    setShown(linesOf(event.currentTarget))
    sending(keptAs, () => { onSubmit(form) })
  }
  return (
    <FormPanel onSubmit={submit} validationErrors={fields} validationBehavior="aria">
      {since && (
        <Notice tone="attention" word="Not sent yet.">
          What you typed on {moment(since)} is here again.{' '}
          <Button $small onPress={() => { forget(); setSince(undefined); setAnew(anew + 1) }}>Begin anew</Button>
        </Notice>
      )}
      <Memory.Provider key={anew} value={memory}>{children}</Memory.Provider>
      {!isKept && error && !Object.keys(fields).length && <Notice tone="stop" word="Not saved.">{messageOf(error)}</Notice>}
      {!isKept && rest.length > 0 && <Notice tone="stop" word="Not saved.">{rest.join(' ')}</Notice>}
      <Buttons>
        <Button $tone="main" type="submit" isPending={isPending}>{action}</Button>
        <Button onPress={() => { forget(); onCancel() }}>{leave}</Button>
      </Buttons>
    </FormPanel>
  )
}

/** The lines of a form that show what is wrong with them, by name. */
function linesOf(form: HTMLFormElement): string[] {
  return Array.from(form.querySelectorAll<HTMLInputElement | HTMLTextAreaElement>(
    'textarea, input:not([type=checkbox], [type=radio])'), ({ name }) => name)
}

function memoryOf(keptAs: string | null, base: unknown): FormMemory {
  const read = () => keptAs === null ? undefined : draftOf(keptAs)?.value as KeptForm | undefined
  const originals = new Map<string, unknown>()
  return {
    start: (field) => read()?.fields[field],
    original: (field, value) => {
      if (!originals.has(field)) originals.set(field, value)
      return originals.get(field)
    },
    keep: (field, value) => {
      if (keptAs === null) return
      const before = read()
      keepUnder(keptAs, { base: before?.base ?? base, fields: { ...before?.fields, [field]: value } })
    },
  }
}

/** What a field of a form holds, without white space around it. */
export const textOf = (form: FormData, name: string) => String(form.get(name) ?? '').trim()
