import { useState } from 'react'

import type { Connector } from '../../../../api/openup'
import { Field, FieldGrid, Tick } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { PhotoButton } from '../../../../features/pictures/PhotoButton'
import { viewOf } from '../../../../api/attachments'
import { BeforeOpened } from './BeforeOpened'
import { Thumbs } from '../../../../features/pictures/Thumbs'

type Props = {
  machineId: number
  start?: Partial<Connector>
  boards: string[]
  keptAs: string
  base?: unknown
  error: Error | null
  isPending: boolean
  action: string
  onSubmit: (fields: Connector) => void
  onCancel: () => void
}

/** What the map says of a connector. */
export function ConnectorForm({ machineId, start, boards, onSubmit, ...form }: Props) {
  const [picture, setPicture] = useState(start?.pictureId)
  const [foundOpen, setFoundOpen] = useState(start?.foundOpen ?? false)
  const [wrong, setWrong] = useState<Record<string, string>>({})
  return (
    <RecordForm
      {...form}
      wrong={wrong}
      onSubmit={(data) => {
        const text = (name: string) => textOf(data, name)
        const pins = { plugPins: text('plugPins'), socketPins: text('socketPins'), offset: text('offset') }
        const odd = Object.entries(pins).filter(([, value]) => !/^-?\d{0,3}$/.test(value))
        setWrong(Object.fromEntries(odd.map(([name]) => [name, 'Write figures only.'])))
        if (odd.length > 0) return
        onSubmit({
          name: text('name'), fromBoard: text('fromBoard'), fromPlace: text('fromPlace'), toBoard: text('toBoard'),
            toPlace: text('toPlace'), kind: text('kind'),
          plugPins: Number(pins.plugPins), socketPins: Number(pins.socketPins), offset: Number(pins.offset),
            pin1: text('pin1'), key: text('key'), colours: text('colours'),
          cable: text('cable'), never: text('never'), note: text('note'), pictureId: picture, foundOpen,
        })
      }}
    >
      <datalist id="boards-of-the-machine">{boards.map((title) => <option key={title} value={title} />)}</datalist>
      <FieldGrid>
        <Field label="Name" name="name" defaultValue={start?.name} isRequired autoFocus mono placeholder="J5"
          hint="As on the board, or on a label of yours" />
        <Field label="Kind" name="kind" defaultValue={start?.kind} list="connector-kinds" placeholder="header 2.54" />
        <Field label="From" name="fromBoard" defaultValue={start?.fromBoard} list="boards-of-the-machine"
          placeholder="Disk drive" hint="Empty for a socket without a plug" />
        <Field label="Where on it" name="fromPlace" defaultValue={start?.fromPlace} />
        <Field label="To" name="toBoard" defaultValue={start?.toBoard} list="boards-of-the-machine"
          placeholder="Main board" />
        <Field label="Which socket" name="toPlace" defaultValue={start?.toPlace} placeholder="J5" />
      </FieldGrid>
      <datalist id="connector-kinds">
        {['header 2.54', 'header 2.54 keyed', 'power 4-pin', 'edge', 'DIN', 'D-sub', 'ribbon socket', 'spade',
          'coaxial'].map((kind) => <option key={kind} value={kind} />)}
      </datalist>
      <FieldGrid>
        <Field label="Pins of the plug" name="plugPins" defaultValue={start?.plugPins ? String(start.plugPins) : ''}
          inputMode="numeric" />
        <Field label="Pins of the socket" name="socketPins"
          defaultValue={start?.socketPins ? String(start.socketPins) : ''} inputMode="numeric" />
        <Field label="Moved by, pins" name="offset" defaultValue={start?.offset ? String(start.offset) : ''}
          inputMode="numeric" hint="Pins of the socket left free before pin 1" />
      </FieldGrid>
      <FieldGrid>
        <Field label="Where pin 1 is" name="pin1" defaultValue={start?.pin1} placeholder="red edge to the rear" />
        <Field label="Key" name="key" defaultValue={start?.key} placeholder="notch, pin 5 pulled" />
        <Field label="Wires from pin 1 on" name="colours" defaultValue={start?.colours}
          placeholder="red, black, black, yellow" />
        <Field label="Cable" name="cable" defaultValue={start?.cable} placeholder="grey ribbon, 30 cm" />
      </FieldGrid>
      <FieldGrid>
        <Field label="Why nothing must be plugged in" name="never" defaultValue={start?.never}
          hint="Only for a socket that looks like another" />
        <Field label="Note" name="note" defaultValue={start?.note} />
      </FieldGrid>
      <Tick label="It was found open: nobody knows yet where it goes" isOn={foundOpen} onChange={setFoundOpen} />
      <Thumbs>{picture && <li><img src={viewOf(picture, 'thumb')} alt="As it sat" width={96}
        height={72} /></li>}</Thumbs>
      <BeforeOpened machineId={machineId} chosen={picture} onChoose={setPicture} />
      <div><PhotoButton owner={{ machine: machineId }} label="Photo of how it sits"
        onKept={([id]) => { setPicture(id) }} /></div>
    </RecordForm>
  )
}
