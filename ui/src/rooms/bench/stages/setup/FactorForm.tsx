import { useInfiniteQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { DiagnosisFields } from '../../../../api/diagnosis'
import { looseQuery } from '../../../../api/moves'
import { Button, Buttons } from '../../../../kit/Button'
import { Choice, Field, FieldGrid, Tick } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { type Kind, kinds } from './kinds'

export type Board = { id: number; title: string }
type Props = { keptAs: string; base?: unknown; fields: DiagnosisFields; at: number; boards: Board[]
  error: Error | null; isPending: boolean; onSubmit: (fields: Pick<DiagnosisFields, 'factors' | 'trials'>) => void
  onCancel: () => void }

/** Something that is changed between trials: what it is called, which board it is, and what changing it takes. */
export function FactorForm({ fields, at, boards, onSubmit, ...form }: Props) {
  const { factors = [], trials = [] } = fields
  const factor = factors[at]
  const [kind, setKind] = useState<Kind>(factor?.kind ?? 'other')
  const [danger, setDanger] = useState(factor?.danger ?? false)
  const [board, setBoard] = useState(factor?.assemblyId ? String(factor.assemblyId) : '')
  const [wrong, setWrong] = useState<Record<string, string>>({})
  const loose = useInfiniteQuery(looseQuery('')).data?.pages.flatMap((page) => page.assemblies) ?? []
  if (!factor) return null
  const isUsed = trials.some(({ on }) => on.includes(factor.name))
  const isLoose = (board: Board) => loose.some(({ id }) => id === board.id)
  const all = [...boards.filter((one) => !isLoose(one)),
    ...loose.map(({ id, title }) => ({ id, title: `${title} (in store)` }))]
  return (
    <RecordForm {...form} action="Save" wrong={wrong} onSubmit={(data) => {
      const name = textOf(data, 'name').trim()
      const effort = Number(textOf(data, 'effort') || '1')
      setWrong(effort >= 0 ? {} : { effort: 'Write a figure from 0 up.' })
      if (!(effort >= 0)) return
      // A new name is its name in all trials.
      onSubmit({ factors: factors.map((one, i) => i === at ? { name, kind, effort, danger,
        assemblyId: Number(board) || undefined } : one),
        trials: trials.map((one) => ({ ...one, on: one.on.map((was) => was === factor.name ? name : was) })) })
    }}>
      <FieldGrid>
        <Field label="What is changed" name="name" defaultValue={factor.name} isRequired />
        <Choice label="What kind" name="kind" value={kind} onChange={setKind} options={kinds} />
        <Choice label="The board that is put in" name="board" value={board} onChange={setBoard}
          options={[{ value: '', text: 'none of ours' }, ...all.map(({ id, title }) => ({ value: String(id), text: title }))]} />
        <Field label="Effort" name="effort" inputMode="decimal" defaultValue={String(factor.effort ?? 1)} hint="In minutes, or beside the others" />
      </FieldGrid>
      <Tick label="Having it on may hurt somebody or something" isOn={danger} onChange={setDanger} />
      {!isUsed && <Buttons><Button $small $tone="quiet" onPress={() => {
        onSubmit({ factors: factors.filter((_, i) => i !== at), trials })
      }}>Take it out</Button></Buttons>}
    </RecordForm>
  )
}
