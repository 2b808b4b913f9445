import type { UseMutationResult } from '@tanstack/react-query'
import { type ReactNode, useState } from 'react'

import type { Schemas } from '../api/client'
import { ProblemError } from '../api/problem'
import { keptUnder } from '../data/drafts'
import { ChangedMeanwhile, Differences } from './ChangedMeanwhile'
import type { KeptForm } from './RecordForm'

type Form<Fields> = { keptAs: string; base: unknown; error: Error | null; isPending: boolean; onSubmit: (fields: Omit<Fields, 'version'>) => void;
  onCancel: () => void }

type Props<Kept extends { version: number }, Fields extends { version: number }> = {
  /** The name under which the device keeps what is typed. */
  keptAs: string
  /** The record that is edited, as it was read. */
  record: Kept
  change: UseMutationResult<unknown, Error, Fields>
  /** Where a refused save says what the record is now. */
  newerIn: (newer: Schemas['Newer']) => Kept | undefined
  /** What the fields are called in which two versions are compared. */
  names: Partial<Record<keyof Kept, string>>
  onDone: () => void
  children: (form: Form<Fields>) => ReactNode
}

/** Edits a record: when somebody else changed it meanwhile, theirs is shown, and whoever edits chooses. */
export function EditRecord<Kept extends { version: number }, Fields extends { version: number }>({ keptAs, record, change,
  newerIn, names, onDone, children }: Props<Kept, Fields>) {
  // What was typed on an earlier version still stands on that: saving it shows what came between.
  const [base, setBase] = useState(() => (keptUnder<KeptForm>(keptAs)?.base as Kept | undefined) ?? record)
  const problem = change.error instanceof ProblemError ? change.error.problem : undefined
  const newer = problem?.newer && newerIn(problem.newer)
  return (
    <>
      {newer && (
        <ChangedMeanwhile onGoOn={() => { setBase(newer); change.reset() }} onDrop={onDone}>
          <Differences<Kept> names={names} mine={base} theirs={newer} />
        </ChangedMeanwhile>
      )}
      {children({
        keptAs,
        base,
        error: newer ? null : change.error,
        isPending: change.isPending,
        onSubmit: (fields) => { change.mutate({ ...fields, version: base.version } as Fields, { onSuccess: onDone }) },
        onCancel: onDone,
      })}
    </>
  )
}
