import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { Schemas } from '../../../../api/client'
import { messageOf } from '../../../../api/problem'
import { type OperatingFields, panelQuery } from '../../../../api/setup'
import { Button, Buttons } from '../../../../kit/Button'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { Mark } from '../../../../kit/Mark'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { useSettled } from '../../../../kit/useSettled'
import { PanelSteps } from './Lamps'

type Radix = NonNullable<OperatingFields['radix']>
type Props = { keptAs: string; base?: unknown; start: OperatingFields; offered: Schemas['OfferedOperatingCard'][]
  error: Error | null; isPending: boolean; onSubmit: (fields: OperatingFields) => void; onCancel: () => void }

/** How a machine is operated. What is done at its panel is read as it is written, and its lamps are shown. */
export function OperatingForm({ start, offered, onSubmit, ...form }: Props) {
  const [from, setFrom] = useState(start)
  const [taken, setTaken] = useState(0)
  const [radix, setRadix] = useState<Radix>(start.radix ?? 'octal')
  const [addressBits, setAddressBits] = useState(String(start.addressBits ?? 16))
  const [dataBits, setDataBits] = useState(String(start.dataBits ?? 16))
  const [advance, setAdvance] = useState(String(start.advance ?? 0))
  const [panel, setPanel] = useState(start.panel ?? '')
  const figures = { radix, addressBits: Number(addressBits) || 0, dataBits: Number(dataBits) || 0,
    advance: Number(advance) || 0 }
  const asked = useSettled(JSON.stringify({ ...figures, panel }), 300)
  const read = useQuery({ ...panelQuery(JSON.parse(asked) as OperatingFields), enabled: panel.trim() !== '' })
  return (
    <RecordForm {...form} action="Save" onSubmit={(data) => {
      onSubmit({ ...figures, panel: panel.trimEnd(), start: textOf(data, 'start'), stop: textOf(data, 'stop'),
        signOn: textOf(data, 'signOn'), keys: textOf(data, 'keys'), note: textOf(data, 'note') })
    }}>
      {offered.length > 0 && <Buttons>{offered.map((one) => <Button key={one.accession} $small onPress={() => {
        setFrom(one)
        setTaken(taken + 1)
        setRadix(one.radix ?? 'octal')
        setAddressBits(String(one.addressBits ?? 16))
        setDataBits(String(one.dataBits ?? 16))
        setAdvance(String(one.advance ?? 0))
        setPanel(one.panel ?? '')
      }}>As {one.accession}</Button>)}</Buttons>}
      <div key={taken}>
        <Field label="Start" name="start" rows={3} defaultValue={from.start} placeholder={'a step a line'} />
        <Field label="Stop" name="stop" rows={2} defaultValue={from.stop} />
        <Field label="Signing on" name="signOn" rows={2} defaultValue={from.signOn}
          hint="As whom and where; what is typed belongs under Credentials" />
        <Field label="Keys that matter" name="keys" rows={2} defaultValue={from.keys} placeholder="Break = stops the program" />
      </div>
      <details open={panel !== ''}>
        <summary>Front panel</summary>
        <FieldGrid>
          <Choice label="Its words are written in" name="radix" value={radix} onChange={setRadix} options={[
            { value: 'octal', text: 'octal' }, { value: 'hex', text: 'hexadecimal' }, { value: 'split octal', text: 'split octal' },
            { value: 'binary', text: 'binary' }]} />
          <Field label="Address lamps" name="addressBits" inputMode="numeric" value={addressBits} onChange={setAddressBits} />
          <Field label="Data lamps" name="dataBits" inputMode="numeric" value={dataBits} onChange={setDataBits} />
          <Field label="A deposit goes on by" name="advance" inputMode="numeric" value={advance} onChange={setAdvance}
            hint="0 where the address stays" />
        </FieldGrid>
        <Field label="At the panel" name="panel" rows={5} mono value={panel} onChange={setPanel}
          placeholder={'address 0100\ndeposit 016701\nexamine 0100 = 016701\npress start'}
          hint="A step a line: address, deposit, examine, press, note" />
        {panel.trim() !== '' && (read.error ? <p><Mark kind="problem" /> {messageOf(read.error)}</p>
          : read.data && <PanelSteps lamps={read.data.lamps} />)}
      </details>
      <Field label="Note" name="note" rows={2} defaultValue={from.note} key={`note ${String(taken)}`} />
    </RecordForm>
  )
}
