import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { boardConditionQuery, useNoteFinding } from '../../api/judge'
import { messageOf } from '../../api/problem'
import { Button } from '../../kit/Button'
import { Choice, Field, FieldGrid } from '../../kit/Field'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { usePanel } from '../../kit/usePanel'
import { FindingForm } from '../bench/stages/judge/FindingForm'
import { Compared } from '../bench/stages/judge/Findings'
import { GradeSquare } from '../bench/stages/judge/GradeSquare'

/** What is known to be wrong with a board that is in no machine. */
export function BoardFindings({ assemblyId, mayWrite }: { assemblyId: number; mayWrite: boolean }) {
  const condition = useQuery(boardConditionQuery(assemblyId))
  const on = { assembly: assemblyId }
  const note = useNoteFinding(on)
  const [adding, setAdding] = usePanel('finding')
  const [subsystem, setSubsystem] = useState('boards')
  const [designator, setDesignator] = useState('')
  if (condition.error) return <Notice tone="stop" word="Not read.">{messageOf(condition.error)}</Notice>
  if (!condition.data) return null
  const { findings, compared, technical, technicalWhy, subsystems, severities } = condition.data
  const chosen = subsystems.find((one) => one.subsystem === subsystem)
  return (
    <Part title="Findings" faint={technicalWhy}
      action={mayWrite && !adding && <Button $small onPress={() => { setAdding(true) }}>Note a finding</Button>}>
      {adding && chosen && (
        <>
          <FieldGrid>
            <Choice label="Subsystem" value={subsystem} onChange={setSubsystem}
              options={subsystems.map(({ subsystem: value, name }) => ({ value, text: name }))} />
            <Field label="Part" value={designator} onChange={setDesignator} mono placeholder="BT1" />
          </FieldGrid>
          <FindingForm
            keptAs={`finding of board ${String(assemblyId)} ${subsystem}`}
            key={subsystem}
            item={{ ...chosen, parts: [] }}
            severities={severities}
            error={note.error}
            isPending={note.isPending}
            action="Save"
            onSubmit={(seen) => {
              note.mutate({ subsystem, ...seen, ...(seen.new && { new: { ...seen.new, designator } }) },
                { onSuccess: () => { setAdding(false); setDesignator('') } })
            }}
            onCancel={() => { setAdding(false); note.reset() }}
          />
        </>
      )}
      {findings.length === 0 ? <p><Faint>Nothing was found on it yet.</Faint></p>
        : <><p><GradeSquare grade={technical} /></p>
          <Compared on={on} condition={{ findings, compared, surveys: [] }} mayWrite={mayWrite} /></>}
    </Part>
  )
}
