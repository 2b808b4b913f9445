import { useState } from 'react'

import type { DiagnosisFields, Offered } from '../../../../api/diagnosis'
import { Button, Buttons } from '../../../../kit/Button'
import { Choice, Field, FieldGrid, Tick } from '../../../../kit/Field'
import { Faint } from '../../../../kit/Page'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { type Kind, kinds } from './kinds'

type Went = 'ok' | 'fail' | 'sometimes'
type Props = { keptAs: string; base?: unknown; fields: DiagnosisFields; at: number; on?: string[]; offered: Offered[]
  error: Error | null; isPending: boolean; onSubmit: (fields: Pick<DiagnosisFields, 'factors' | 'trials'>) => void
  onCancel: () => void }

/** A trial: the state of all factors, and how it went. */
export function TrialForm({ fields, at, on, offered, onSubmit, ...form }: Props) {
  const { factors = [], trials = [] } = fields
  const start = trials[at]
  const before = start ?? { ...trials.at(-1), runs: 1, failed: 0 }
  const [isOn, setOn] = useState<string[]>(on ?? before.on ?? [])
  const [name, setName] = useState('')
  const [kind, setKind] = useState<Kind>('part')
  const [went, setWent] = useState<Went>(!start ? 'fail' : start.failed === 0 ? 'ok' : start.failed === start.runs ? 'fail' : 'sometimes')
  const [wrong, setWrong] = useState<Record<string, string>>({})
  const known = new Set(factors.map((one) => one.name))
  return (
    <RecordForm {...form} action="Save" wrong={wrong} onSubmit={(data) => {
      const runs = Number(textOf(data, 'runs') || '1')
      const failed = went === 'ok' ? 0 : went === 'fail' ? runs : Number(textOf(data, 'failed') || '1')
      const isCount = (n: number) => Number.isInteger(n) && n >= 1
      setWrong(isCount(runs) ? {} : { runs: 'Write a whole number from 1 on.' })
      if (!isCount(runs)) return
      const added = [...new Set(name.split(';').map((one) => one.trim()).filter(Boolean))]
      const all = [...factors, ...added.filter((one) => !known.has(one)).map((one) => ({ name: one, kind, effort: 1 }))]
      const trial = { on: [...new Set([...isOn, ...added])], runs, failed,
        day: textOf(data, 'day'), note: textOf(data, 'note') }
      onSubmit({ factors: all, trials: start ? trials.map((one, i) => i === at ? trial : one) : [...trials, trial] })
    }}>
      <p><Faint>Between two trials: off, lead out, lamps dark; then change, and only what was meant to be changed. By your
        house's rules, and with somebody who knows it where the supply or the tube is open.</Faint></p>
      <fieldset>
        <legend>What was on in {start ? `trial ${String(at + 1)}` : 'this trial'}; all else was off</legend>
        {factors.length === 0 && <p><Faint>Nothing that could be changed is named yet.</Faint></p>}
        {factors.map((one) => <Tick key={one.name} label={one.danger ? `${one.name} (may hurt)` : one.name}
          isOn={isOn.includes(one.name)} onChange={(now) => {
            setOn((before) => now ? [...before, one.name] : before.filter((other) => other !== one.name))
          }} />)}
      </fieldset>
      <FieldGrid>
        <Field label="Another change, on from now" name="another" value={name} onChange={setName}
          placeholder="other memory card" hint="Several with ; between; empty where all is named above" />
        <Choice label="What kind" name="kind" value={kind} onChange={setKind} options={kinds} />
      </FieldGrid>
      {offered.length > 0 && <details>
        <summary>What was changed lately</summary>
        <Buttons>{offered.filter(({ words }) => !known.has(words)).map((one) => (
          <Button key={`${one.words} ${one.on}`} $small $tone="quiet"
            onPress={() => { setName(one.words.slice(0, 200)); setKind(one.kind) }}>{one.words} ({one.on})</Button>
        ))}</Buttons>
      </details>}
      <FieldGrid>
        <Choice label="How it went" name="went" value={went} onChange={setWent} options={[{ value: 'fail', text: 'the symptom was there' },
          { value: 'ok', text: 'it went well' }, { value: 'sometimes', text: 'now and then' }]} />
        <Field label="Runs" name="runs" inputMode="numeric" defaultValue={String(before.runs ?? 1)} hint="As often as it was tried so" />
        {went === 'sometimes' && <Field label="Runs with the symptom" name="failed" inputMode="numeric"
          defaultValue={String(before.failed)} />}
        <Field label="Day" name="day" defaultValue={start?.day} mono placeholder="today" />
      </FieldGrid>
      <Field label="Note" name="note" rows={2} defaultValue={start?.note} />
      {start && <Buttons><Button $small $tone="quiet" onPress={() => {
        onSubmit({ factors, trials: trials.filter((_, i) => i !== at) })
      }}>Take this trial out</Button></Buttons>}
    </RecordForm>
  )
}
