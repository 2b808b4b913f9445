import { useQuery } from '@tanstack/react-query'

import { type Fastener, readStepQuery, type Step, type TeardownView, type Wiring } from '../../../../api/openup'
import { Button, Buttons } from '../../../../kit/Button'
import { Cautions } from '../../../../kit/Cautions'
import { Field, FieldGrid, Tick } from '../../../../kit/Field'
import { Faint } from '../../../../kit/Page'
import { RecordForm } from '../../../../kit/RecordForm'
import { useKept } from '../../../../data/useDrafts'
import { PhotoButton } from '../../../../features/pictures/PhotoButton'
import { Thumb } from '../../../../features/pictures/Thumb'
import { FastenerFields } from './FastenerFields'
import { stepOf, tappedOf } from './tapped'
import { Thumbs } from '../../../../features/pictures/Thumbs'
import { WarningList } from './WarningList'

type Props = {
  log: TeardownView
  /** Under what the device keeps what is tapped until it is sent. */
  keptAs: string
  start: Partial<Step>
  pictures?: number[]
  wiring: Wiring
  boards: string[]
  error: Error | null
  isPending: boolean
  action: string
  onSubmit: (step: Step, pictures: number[], sent: () => void) => void
  onCancel: () => void
}

const newFastener = (cell: string): Fastener => ({ count: 4, kind: 'M3 pan', lengthMm: 0, washer: '', tool: '',
  keeping: cell ? 'cell' : 'hole', cell, pattern: [] })

/** A step field by field, for a thumb. What is tapped is kept on the device until it is sent. */
export function StepForm({ log, keptAs, start, pictures = [], wiring, boards, onSubmit, onCancel, ...form }: Props) {
  const [tapped, change, forget] = useKept(keptAs, tappedOf(start, pictures))
  const put = (changed: Partial<typeof tapped>) => { change((before) => ({ ...before, ...changed })) }
  const { off, fasteners, unplugged } = tapped
  const plugs = wiring.connectors.filter(({ socketOnly, open, name }) =>
    !socketOnly && (!open || unplugged.includes(name)))
  // Without the fasteners, which may be half typed: cautions and warnings hang on the words and the plugs.
  const read = useQuery({ ...readStepQuery(log.id, log.sums.steps, { step: { ...stepOf(tapped), fasteners: [] } }),
    placeholderData: (before) => before }).data
  return (
    <RecordForm keptAs={null} {...form} onSubmit={() => { onSubmit(stepOf(tapped), tapped.pictures, forget) }}
      onCancel={() => { forget(); onCancel() }}>
      <Field label="What comes off" name="off" value={off} onChange={(text) => { put({ off: text }) }} isRequired
        autoFocus list="what-comes-off" />
      <datalist id="what-comes-off">{boards.map((title) => <option key={title} value={title} />)}</datalist>
      {read && <Cautions cautions={read.cautions} />}
      {fasteners.map((fastener, i) => (
        <FastenerFields
          key={i}
          n={i + 1}
          fastener={fastener}
          onChange={(next) => { put({ fasteners: fasteners.map((one, j) => (j === i ? next : one)) }) }}
          onDrop={() => { put({ fasteners: fasteners.filter((_, j) => j !== i) }) }}
        />
      ))}
      <Buttons><Button $small onPress={() => { put({ fasteners: [...fasteners, newFastener(log.freeCell)] }) }}>
        {fasteners.length === 0 ? 'Add fasteners' : 'Add other fasteners'}
      </Button></Buttons>
      {plugs.length > 0 && (
        <fieldset>
          <legend>Unplugged</legend>
          {plugs.map(({ id, name, fromBoard }) => (
            <Tick key={id} label={`${name}, from ${fromBoard}`} isOn={unplugged.includes(name)}
              onChange={(isOn) => {
                put({ unplugged: isOn ? [...unplugged, name] : unplugged.filter((one) => one !== name) })
              }} />
          ))}
        </fieldset>
      )}
      <WarningList title="" warnings={read?.warnings ?? []} />
      <Field label={plugs.length > 0 ? 'Other plugs, by name' : 'Plugs, by name'} name="connectors" value={tapped.more}
        onChange={(more) => { put({ more }) }} placeholder="J5, J6" hint="What is not on the map yet is put there" />
      <Field label="What may snap, stick or hurt" name="tabs" value={tapped.tabs}
        onChange={(tabs) => { put({ tabs }) }} placeholder="front left clip, brittle" hint="Several with ; between" />
      <Field label="How it is made here, where that tells machines apart" name="differs" value={tapped.differs}
        onChange={(differs) => { put({ differs }) }} placeholder="battery: soldered" />
      <FieldGrid>
        <Field label="What must be off before it" name="needs" value={tapped.needs} onChange={(needs) => { put({ needs }) }}
          placeholder="Lid, Drive bay" hint="nothing for none; left empty, all before it" />
        <Field label="What can be got at then" name="frees" value={tapped.frees} onChange={(frees) => { put({ frees }) }}
          placeholder="BT1, JP1-JP4" mono />
        <Field label="What to look at on the way" name="look" value={tapped.look} onChange={(look) => { put({ look }) }}
          placeholder="tracks below BT1" hint="Several with ; between" />
        <Field label="Minutes" name="minutes" value={tapped.minutes} onChange={(minutes) => { put({ minutes }) }}
          inputMode="numeric" />
      </FieldGrid>
      <Field label="Note" name="note" value={tapped.note} onChange={(note) => { put({ note }) }} />
      <Tick label="The order matters here" isOn={tapped.special} onChange={(special) => { put({ special }) }} />
      <Thumbs>{tapped.pictures.map((id, i) => <li key={id}><Thumb id={id} alt={`Photo ${String(i + 1)}`} /></li>)}</Thumbs>
      <Buttons>
        <PhotoButton owner={{ machine: log.machineId }}
          onKept={(ids) => { change((before) => ({ ...before, pictures: [...before.pictures, ...ids] })) }} />
        <Faint>Kept on this device until it is written down.</Faint>
      </Buttons>
    </RecordForm>
  )
}
