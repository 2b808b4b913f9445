import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { modelsQuery } from '../../api/identify'
import { type Rule, type RuleFields, subjectsQuery } from '../../api/upkeep'
import { Choice, Field, FieldGrid, Tick } from '../../kit/Field'
import { RecordForm, textOf } from '../../kit/RecordForm'

type Props = { keptAs: string; base?: unknown; start?: Rule; action: string; error: Error | null; isPending: boolean
  onSubmit: (fields: RuleFields) => void; onCancel: () => void }

const quantities = { '': 'nothing', volts: 'volts', 'volts-ac': 'volts, alternating', ohms: 'ohms', amperes: 'amperes',
  microfarads: 'microfarads', esr: 'series resistance', hertz: 'hertz', celsius: 'degrees Celsius', millimetres: 'millimetres',
  grams: 'grams', seconds: 'seconds', 'volts-pp': 'volts, peak to peak' } as const

/** What is done again and again to machines or parts of a class, or what always holds of them. */
export function RuleForm({ start, onSubmit, ...form }: Props) {
  const subjects = useQuery(subjectsQuery).data ?? []
  const models = useQuery(modelsQuery('')).data ?? []
  const [of, setOf] = useState(start?.of ?? 'machine')
  const [model, setModel] = useState(start?.modelId ? String(start.modelId) : '')
  const [looks, setLooks] = useState(start?.looks ?? false)
  const [runs, setRuns] = useState(start?.runs ?? false)
  const [measures, setMeasures] = useState<keyof typeof quantities>(start?.measures ?? '')
  const [wrong, setWrong] = useState<Record<string, string>>({})
  const isOfMachines = of === 'machine'
  return (
    <RecordForm {...form} wrong={wrong} onSubmit={(data) => {
      const figures = { everyMonths: textOf(data, 'everyMonths') || '0', minutes: textOf(data, 'minutes') || '0' }
      const odd = Object.entries(figures).filter(([, text]) => !/^\d{1,4}$/.test(text))
      setWrong(Object.fromEntries(odd.map(([name]) => [name, 'Write a whole number.'])))
      if (odd.length > 0) return
      onSubmit({ task: textOf(data, 'task'), everyMonths: Number(figures.everyMonths), minutes: Number(figures.minutes), of,
        modelId: Number(model) || undefined, looks, runs: runs && isOfMachines, measures, how: textOf(data, 'how') })
    }}>
      <FieldGrid>
        <Field label="Task" name="task" defaultValue={start?.task} isRequired placeholder="Measure the clock battery" />
        <Field label="Every so many months" name="everyMonths" inputMode="numeric" placeholder="0"
          defaultValue={start?.everyMonths ? String(start.everyMonths) : undefined}
          hint="0: it always holds, and is told at the machine" />
        <Choice label="Of" name="of" value={of} onChange={setOf}
          options={(subjects.length > 0 ? subjects : [{ key: of, name: start?.className || 'Machines as a whole' }])
            .map(({ key, name }) => ({ value: key, text: name }))} />
        <Choice label="Of the model" name="model" value={model} onChange={setModel} options={[{ value: '', text: 'all models' },
          ...models.map(({ id, maker, model: name }) => ({ value: String(id), text: `${maker} ${name}` }))]} />
        <Field label="Minutes at one machine" name="minutes" inputMode="numeric"
          defaultValue={start?.minutes ? String(start.minutes) : undefined} />
        <Choice label="What is measured" name="measures" value={measures} onChange={setMeasures}
          options={Object.entries(quantities).map(([value, text]) => ({ value: value as keyof typeof quantities,
            text }))} />
      </FieldGrid>
      <Tick label="A look is enough: a survey, or to see it at other work, counts, too" isOn={looks} onChange={setLooks} />
      {isOfMachines && <Tick label="To have had it under power counts, too" isOn={runs} onChange={setRuns} />}
      <Field label="How it is done, and why" name="how" rows={2} defaultValue={start?.how} />
    </RecordForm>
  )
}
