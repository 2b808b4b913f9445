import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { type Fastener, readStepQuery, type Step, type Wiring } from '../../../../api/openup'
import { viewOf } from '../../../../api/attachments'
import { Button, Buttons } from '../../../../kit/Button'
import { Cautions } from '../../../../kit/Cautions'
import { Field, Tick } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { PhotoButton } from '../../../../pictures/PhotoButton'
import { FastenerFields } from './FastenerFields'
import { Thumbs } from './Thumbs'
import { WarningList } from './WarningList'

type Props = {
  machineId: number
  /** The log that it is a new step of, to say what to take care of; undefined for one that is off already. */
  log?: { id: number; steps: number }
  start: Partial<Step>
  pictures?: number[]
  freeCell: string
  wiring: Wiring
  boards: string[]
  error: Error | null
  isPending: boolean
  action: string
  onSubmit: (step: Step, pictures: number[]) => void
  onCancel: () => void
}

const newFastener = (cell: string): Fastener => ({ count: 4, kind: 'M3 pan', lengthMm: 0, washer: '', tool: '', way: cell ? 'cell' : 'hole', cell, pattern: [] })

/** A step field by field, for a thumb. */
export function StepForm({ machineId, log, start, pictures: kept = [], freeCell, wiring, boards, onSubmit, ...form }: Props) {
  const [fasteners, setFasteners] = useState<Fastener[]>(start.fasteners ?? [])
  const [unplugged, setUnplugged] = useState<string[]>(start.connectors ?? [])
  const [pictures, setPictures] = useState(kept)
  const [special, setSpecial] = useState(start.special ?? false)
  const plugs = wiring.connectors.filter(({ socketOnly, open, name }) => !socketOnly && (!open || unplugged.includes(name)))
  const [off, setOff] = useState(start.off ?? '')
  const read = useQuery({ ...readStepQuery(log?.id ?? 0, log?.steps ?? 0, { line: off.replaceAll('|', ' ') }), enabled: log !== undefined && off.trim() !== '', placeholderData: (before) => before }).data
  const warnings = wiring.warnings.filter(({ kind, names }) => kind !== 'not counted' && names.some((name) => unplugged.includes(name)))
  return (
    <RecordForm
      {...form}
      onSubmit={(data) => {
        const more = listOf(textOf(data, 'more'))
        const differs = listOf(textOf(data, 'differs'), ';').map((one) => {
          const [subject = '', ...value] = one.split(':')
          return { subject: subject.trim(), value: value.join(':').trim() }
        })
        onSubmit({ off: textOf(data, 'off'), fasteners, tabs: listOf(textOf(data, 'tabs'), ';'), connectors: [...unplugged, ...more], differs, note: textOf(data, 'note'), special }, pictures)
      }}
    >
      <Field label="What comes off" name="off" value={off} onChange={setOff} isRequired autoFocus list="what-comes-off" />
      <datalist id="what-comes-off">{boards.map((title) => <option key={title} value={title} />)}</datalist>
      {read && <Cautions cautions={read.cautions} />}
      {fasteners.map((fastener, i) => (
        <FastenerFields
          key={i}
          n={i + 1}
          fastener={fastener}
          onChange={(next) => { setFasteners(fasteners.map((one, j) => (j === i ? next : one))) }}
          onDrop={() => { setFasteners(fasteners.filter((_, j) => j !== i)) }}
        />
      ))}
      <Buttons><Button $small onPress={() => { setFasteners([...fasteners, newFastener(freeCell)]) }}>{fasteners.length === 0 ? 'Add fasteners' : 'Add other fasteners'}</Button></Buttons>
      {plugs.length > 0 && (
        <fieldset>
          <legend>Unplugged</legend>
          {plugs.map(({ id, name, fromBoard }) => (
            <Tick key={id} label={`${name}, from ${fromBoard}`} isOn={unplugged.includes(name)} onChange={(isOn) => { setUnplugged(isOn ? [...unplugged, name] : unplugged.filter((one) => one !== name)) }} />
          ))}
        </fieldset>
      )}
      <WarningList title="" warnings={warnings} />
      <Field label={plugs.length > 0 ? 'Other plugs, by name' : 'Plugs, by name'} name="more" placeholder="J5, J6" hint="What is not on the map yet is put there" />
      <Field label="What may snap, stick or hurt" name="tabs" defaultValue={(start.tabs ?? []).join('; ')} placeholder="front left clip, brittle" hint="Several with ; between" />
      <Field label="How it is made here, where that tells machines apart" name="differs" defaultValue={(start.differs ?? []).map(({ subject, value }) => `${subject}: ${value}`).join('; ')} placeholder="battery: soldered" />
      <Field label="Note" name="note" defaultValue={start.note ?? ''} />
      <Tick label="The order matters here" isOn={special} onChange={setSpecial} />
      <Thumbs>{pictures.map((id) => <li key={id}><img src={viewOf(id, 'thumb')} alt={`Photo ${String(id)}`} width={96} height={72} /></li>)}</Thumbs>
      <Buttons><PhotoButton owner={{ machine: machineId }} onKept={({ id }) => { setPictures((before) => [...before, id]) }} /></Buttons>
    </RecordForm>
  )
}

const listOf = (text: string, between = ',') => text.split(between).map((one) => one.trim()).filter(Boolean)
