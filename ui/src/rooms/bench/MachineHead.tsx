import { Link } from 'react-router'
import styled from 'styled-components'

import { type Machine, type MachineFields, useChangeMachine, usePictureOf } from '../../api/machines'
import type { Power } from '../../api/power'
import { useAccount } from '../../api/session'
import { GateMark } from '../../features/power/GateMark'
import { HistoryList } from '../../features/history/HistoryList'
import { Button } from '../../kit/Button'
import { EditRecord } from '../../kit/EditRecord'
import { useShortcut } from '../../kit/shortcuts'
import { usePanel } from '../../kit/usePanel'
import { color, font, space } from '../../theme'
import { MachineThumb } from '../../features/pictures/MachineThumb'
import { MachineForm } from '../collection/MachineForm'

/** What the machine is, in two lines; a curator can edit the record in place. */
export function MachineHead({ machine, power }: { machine: Machine; power: Power | undefined }) {
  const mayEdit = useAccount()?.mayKeepTheRecord ?? false
  const [editing, setEditing] = usePanel('record', 'keepers')
  const [telling, setTelling] = usePanel('history', 'all')
  useShortcut((key, event) => {
    if (key !== 'e' || !mayEdit) return
    event.preventDefault()
    setEditing(true)
  })
  const picture = usePictureOf(machine.id)
  if (editing) return <Record machine={machine} onDone={() => { setEditing(false) }} />
  const what = [machine.maker, machine.model].filter(Boolean).join(' ')
  const serial = machine.serial && `serial ${machine.serial}`
  return (
    <div>
      <Line>
        <MachineThumb id={picture} size={44} />
        <h1><Accession>{machine.accession}</Accession> {machine.name}</h1>
        <GateMark machineId={machine.id} power={power} />
        {mayEdit && <Button $tone="quiet" onPress={() => { setEditing(true) }}>Edit the record</Button>}
        <Button $tone="quiet" aria-expanded={telling} onPress={() => { setTelling(!telling) }}>History</Button>
      </Line>
      <Below>
        {machine.modelId ? <Link to={`/library/models/${String(machine.modelId)}`}>{what || 'its model'}</Link> : what}
        {[serial, machine.place].filter(Boolean).map((one) => ` · ${String(one)}`).join('')}
      </Below>
      {machine.provenance && <Below>{machine.provenance}</Below>}
      {telling && <Telling aria-label={`History of ${machine.accession}`}>
        <HistoryList of={{ machine: machine.id }} />
      </Telling>}
    </div>
  )
}

function Record({ machine, onDone }: { machine: Machine; onDone: () => void }) {
  const change = useChangeMachine(machine.id)
  return (
    <EditRecord keptAs={`machine ${String(machine.id)}`}
      record={machine} change={change} newerIn={(newer) => newer.machine} names={names} onDone={onDone}>
      {(form) => <MachineForm start={machine} action="Save" leave="Cancel" {...form} />}
    </EditRecord>
  )
}

const names: Partial<Record<keyof MachineFields, string>> = {
  accession: 'accession number', name: 'name', maker: 'maker', model: 'model', serial: 'serial number',
  place: 'place', eraFrom: 'parts from', eraTo: 'parts to', provenance: 'provenance',
}

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 ${space(2)};
  h1 { font-size: 22px; overflow-wrap: anywhere; }
`
const Accession = styled.span`
  font-family: ${font.mono};
  font-weight: 400;
  color: ${color.slate};
`
const Telling = styled.section`
  max-height: 320px;
  overflow: auto;
  margin-top: ${space(1)};
  padding: ${space(1)} ${space(2)};
  border: 1px solid ${color.line};
  border-left: 3px solid ${color.slate};
  background: ${color.sheet};
`
const Below = styled.p`
  color: ${color.faint};
  font-size: 15px;
  overflow-wrap: anywhere;
`
