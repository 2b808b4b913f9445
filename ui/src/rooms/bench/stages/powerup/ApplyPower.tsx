import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'

import { consoleQuery } from '../../../../api/console'
import { type Power, usePowerUp } from '../../../../api/power'
import { gateName } from '../../../../features/power/states'
import { Cautions } from '../../../../kit/Cautions'
import { Choice, Field, FieldGrid, Tick } from '../../../../kit/Field'
import { Notice } from '../../../../kit/Notice'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { color, space } from '../../../../theme'

/** Records that power was applied: with what, and what was seen. Against the gate, with who decided. */
export function ApplyPower({ machineId, power, onDone }: { machineId: number; power: Power; onDone: () => void }) {
  const apply = usePowerUp(machineId)
  const next = power.rungs.find(({ result }) => result !== 'as-expected') ?? power.rungs.at(-1)
  const [chosen, setChosen] = useState(next ? [next.id] : [])
  const [result, setResult] = useState<'as-expected' | 'not'>('as-expected')
  const isAgainst = power.state === 'hold' || power.state === 'supply-only'
  return (
    <RecordForm keptAs={`power-up of ${String(machineId)}`} error={apply.error} isPending={apply.isPending} action="Save"
      onCancel={onDone} wrong={{}}
      onSubmit={(data) => {
        apply.mutate({ rungIds: chosen, result, on: textOf(data, 'on'), seen: textOf(data, 'seen'),
          decidedBy: isAgainst ? textOf(data, 'decidedBy') : '', why: isAgainst ? textOf(data, 'why') : '' },
        { onSuccess: onDone })
      }}>
      <Running aria-label="While it runs" role="note">
        <strong>While it runs:</strong> nothing loose inside, no tool in it, no jewellery, one hand, the lead in reach.
      </Running>
      {power.before.length > 0 && <ul aria-label="Before this step">{power.before.map((one) => (
        <li key={one}>{one}.</li>))}</ul>}
      <Cautions cautions={power.running} />
      {isAgainst && (
        <Notice tone="attention" word={`The gate stands at ${gateName(power.state)}.`}>
          {power.missing[0]?.what}. What was done is recorded all the same: say who decided it, and why.
        </Notice>
      )}
      <Heard machineId={machineId} />
      <fieldset>
        <legend>Tried now: one rung, or several where all was switched on at once</legend>
        {power.rungs.map(({ id, step }) => (
          <Tick key={id} label={step} isOn={chosen.includes(id)} onChange={(isOn) => {
            setChosen((before) => (isOn ? [...before, id] : before.filter((one) => one !== id)))
          }} />
        ))}
      </fieldset>
      <FieldGrid>
        <Choice label="Result" name="result" value={result} onChange={setResult}
          options={[{ value: 'as-expected', text: 'as expected' }, { value: 'not', text: 'not as expected' }]} />
        <Field label="On" name="on" mono placeholder="today" />
        {isAgainst && <Field label="Who decided it" name="decidedBy" isRequired />}
        {isAgainst && <Field label="Why" name="why" isRequired />}
      </FieldGrid>
      <Field label="What was seen, heard, smelt" name="seen" rows={2} isRequired={result === 'not'} />
    </RecordForm>
  )
}

/** Stays in sight for as long as a rung is tried, wherever the form is scrolled to. */
/** What the console complained of last, as the reckoning tells it: what it says goes against a step as expected. */
function Heard({ machineId }: { machineId: number }) {
  const newest = useQuery(consoleQuery(machineId)).data?.captures[0]
  if (!newest || newest.reading.troubles.length === 0) return null
  const failed = newest.reading.failures.length > 0 ? 'Memory failed its test. ' : ''
  return (
    <Notice tone="attention" word={`Its console complained on ${newest.on}.`}>
      {failed}{newest.reading.troubles.slice(0, 3).map(({ text }) => text).join('; ')}
    </Notice>
  )
}

const Running = styled.p`
  position: sticky;
  top: 40px; /* below the index of the page */
  z-index: 1;
  padding: ${space(1)};
  border: 2px solid ${color.amber};
  background: ${color.amberGround};
`
