import { useState } from 'react'

import type { SupplyFields } from '../../../../api/power'
import { Choice, Field, FieldGrid, Tick } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

type Props = { keptAs: string; base?: unknown; start?: SupplyFields; action: string; error: Error | null
  isPending: boolean; onSubmit: (fields: SupplyFields) => void; onCancel: () => void }

export const kindsOfSupply: Record<SupplyFields['kind'], string> = { mains: 'fed by mains', adapter: 'plug-in adapter',
  bench: 'bench supply', battery: 'battery' }

const polarities = [{ value: '' as const, text: 'not read' }, { value: 'centre+' as const, text: 'centre positive' },
  { value: 'centre-' as const, text: 'centre negative' }, { value: 'none' as const, text: 'none' }]

/** What feeds a machine, as it is read off and measured. */
export function SupplyForm({ start, onSubmit, ...form }: Props) {
  const [kind, setKind] = useState(start?.kind ?? 'mains')
  const [asks, setAsks] = useState(start?.platePolarity ?? '')
  const [source, setSource] = useState(start?.sourcePolarity ?? '')
  const [starts, setStarts] = useState(start?.startsWithMains ?? false)
  const [wrong, setWrong] = useState<Record<string, string>>({})
  const isFed = kind === 'adapter' || kind === 'bench'
  return (
    <RecordForm {...form} wrong={wrong} onSubmit={(data) => {
      const [rating, wrongRating] = readRating(textOf(data, 'rating'))
      const [selector, wrongSelector] = readVolts(textOf(data, 'selector'))
      const [volts, wrongVolts] = readVolts(textOf(data, 'sourceVolts'))
      const found = { ...(wrongRating && { rating: wrongRating }), ...(wrongSelector && { selector: wrongSelector }),
        ...(wrongVolts && { sourceVolts: wrongVolts }) }
      setWrong(found)
      if (Object.keys(found).length > 0) return
      onSubmit({ name: textOf(data, 'name'), kind, plateVolts: textOf(data, 'plateVolts'), plateHz: textOf(data, 'plateHz'),
        platePolarity: isFed ? asks : '', selector, sourceVolts: isFed ? volts : undefined,
        sourcePolarity: isFed ? source : '', inspectedOn: textOf(data, 'inspectedOn'),
        inspectedBy: textOf(data, 'inspectedBy'), movedOn: textOf(data, 'movedOn'), ranOn: textOf(data, 'ranOn'),
        needs: textOf(data, 'needs').split(/[\s,;]+/).filter(Boolean), rating, startsWithMains: starts,
        note: textOf(data, 'note') })
    }}>
      <FieldGrid>
        <Field label="Name" name="name" defaultValue={start?.name} isRequired autoFocus placeholder="built-in supply" />
        <Choice label="Kind" name="kind" value={kind} onChange={setKind}
          options={Object.entries(kindsOfSupply).map(([value, text]) => ({ value: value as typeof kind, text }))} />
        {kind !== 'battery' && <>
          <Field label="Volts on its plate" name="plateVolts" defaultValue={start?.plateVolts} mono placeholder="220-240"
            hint="As it stands there: 230, 220-240, 115/230" />
          <Field label="Frequency on its plate" name="plateHz" defaultValue={start?.plateHz} mono placeholder="50" />
          <Field label="Its selector stands at" name="selector" defaultValue={start?.selector?.toString()} mono
            placeholder="230" hint="Where it has one" />
        </>}
        {isFed && <>
          <Choice label="Polarity that it asks for" name="platePolarity" value={asks} onChange={setAsks} options={polarities} />
          <Field label="Measured volts of what feeds it" name="sourceVolts" defaultValue={start?.sourceVolts?.toString()}
            mono placeholder="9.1" />
          <Choice label="Measured polarity" name="sourcePolarity" value={source} onChange={setSource} options={polarities} />
        </>}
        <Field label="Inspected on" name="inspectedOn" defaultValue={start?.inspectedOn} mono placeholder="2026-11-29" />
        <Field label="Inspected by" name="inspectedBy" defaultValue={start?.inspectedBy} />
        <Field label="Moved on" name="movedOn" defaultValue={start?.movedOn} mono
          hint="Carried by vehicle, dropped or tipped: not to the next bench" />
        <Field label="Ran last on" name="ranOn" defaultValue={start?.ranOn} mono />
        <Field label="Rails that the machine needs" name="needs" defaultValue={start?.needs?.join(' ')} mono
          placeholder="+5 +12 -12" />
        <Field label="What each rail can give, in amperes" name="rating" mono placeholder="+5 10, +12 3"
          defaultValue={start?.rating?.map(({ rail, amperes }) => `${rail} ${String(amperes)}`).join(', ')} />
        <Field label="Note" name="note" defaultValue={start?.note} />
      </FieldGrid>
      <Tick label="The machine starts as soon as mains arrives" isOn={starts} onChange={setStarts} />
    </RecordForm>
  )
}

function readVolts(text: string): [volts: number | undefined, wrong: string | undefined] {
  if (text === '') return [undefined, undefined]
  const volts = Number(text.replace(/\s*v$/i, '').replace(',', '.'))
  return Number.isFinite(volts) && volts >= 0 ? [volts, undefined] : [undefined, 'Write volts as a figure, as 230.']
}

function readRating(text: string): [rating: { rail: string; amperes: number }[], wrong: string | undefined] {
  const rating: { rail: string; amperes: number }[] = []
  for (const one of text.split(/[,;]/).map((part) => part.trim()).filter(Boolean)) {
    const [, rail, figure] = /^(\S+)\s+(\d+(?:\.\d+)?)\s*a?$/i.exec(one) ?? []
    if (!rail || !figure) return [[], `"${one}" cannot be read: write the rail and its amperes, as +5 10, +12 3.`]
    rating.push({ rail, amperes: Number(figure) })
  }
  return [rating, undefined]
}
