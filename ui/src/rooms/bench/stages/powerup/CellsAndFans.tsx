import { useState } from 'react'
import { Link } from 'react-router'

import { type PowerPart, useSayPart } from '../../../../api/power'
import { Button } from '../../../../kit/Button'
import { Choice, Tick } from '../../../../kit/Field'
import { Scroll, StackedTable, Whole } from '../../../../kit/ListTable'
import { Mark, type MarkKind } from '../../../../kit/Mark'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import type { PowerProps } from './PowerUp'

const marks: Record<PowerPart['state'], MarkKind> = { fitted: 'part', leaking: 'problem', swollen: 'problem', out: 'none',
  replaced: 'done', turns: 'done', dead: 'problem', missing: 'attention', unknown: 'unknown' }

/** Cells and fans of the sheets, with what the gate asks of each and no sheet says. */
export function CellsAndFans({ machine, power, mayWrite }: PowerProps) {
  if (power.parts.length === 0) return null
  return (
    <Part title="Cells and fans" faint="By the sheets; what is said of them here goes with their board">
      <Scroll>
        <StackedTable>
          <thead><tr><th>Part</th><th>State</th><th>What matters before power</th></tr></thead>
          <tbody>{power.parts.map((part) => (
            <tr key={`${String(part.assemblyId)} ${part.place}`}>
              <td><Link to={`/bench/${String(machine.id)}/take-stock?at=${String(part.assemblyId)}.${String(part.line)}`}>
                {part.place}</Link> {part.words !== part.place && part.words}<br /><Faint>{part.board}</Faint></td>
              <Whole><Mark kind={marks[part.state]} /> {part.state}
                {!part.isFan && <><br /><Faint>{part.unknown ? 'which cell is not said' : part.primary
                  ? 'primary, not to be charged' : 'may be charged'}</Faint></>}</Whole>
              <td>{mayWrite ? <Say key={part.version} machineId={machine.id} part={part} /> : <Said part={part} />}</td>
            </tr>
          ))}</tbody>
        </StackedTable>
      </Scroll>
    </Part>
  )
}

const chargedOf = ({ charged }: PowerPart) => (charged === undefined ? '' : charged ? 'yes' : 'no')

function Said({ part }: { part: PowerPart }) {
  if (part.isFan) return part.spared ? 'The machine can do without it.' : null
  return [part.neededToStart && 'Needed to start.', { '': 'Nobody looked whether it is charged.', yes: 'It is charged.',
    no: 'It is not charged.' }[chargedOf(part)]].filter(Boolean).join(' ')
}

function Say({ machineId, part }: { machineId: number; part: PowerPart }) {
  const say = useSayPart(machineId, part.assemblyId)
  const [charged, setCharged] = useState(chargedOf(part))
  const [needed, setNeeded] = useState(part.neededToStart ?? false)
  const [turns, setTurns] = useState(part.turns ?? '')
  const [spared, setSpared] = useState(part.spared ?? false)
  const changed = charged !== chargedOf(part) || needed !== (part.neededToStart ?? false)
    || turns !== (part.turns ?? '') || spared !== (part.spared ?? false)
  return (
    <>
      {part.isFan ? (
        <>
          <Choice label="It" value={turns} onChange={setTurns} options={[{ value: '', text: 'was not seen' },
            { value: 'turns', text: 'turns' }, { value: 'dead', text: 'does not turn' }, { value: 'missing', text: 'is missing' }]} />
          <Tick label="The machine can do without it" isOn={spared} onChange={setSpared} />
        </>
      ) : (
        <>
          <Choice label="The machine charges it" value={charged} onChange={setCharged}
            options={[{ value: '', text: 'nobody looked' }, { value: 'yes', text: 'yes' }, { value: 'no', text: 'no' }]} />
          <Tick label="The machine needs it to start" isOn={needed} onChange={setNeeded} />
        </>
      )}
      {changed && <Button $small isPending={say.isPending} aria-label={`Save what is said of ${part.place}`}
        onPress={() => {
          say.mutate({ version: part.version, place: part.place, neededToStart: needed, turns, spared,
            charged: charged === '' ? undefined : charged === 'yes' })
        }}>Save</Button>}
      <NotSaved error={say.error} />
    </>
  )
}
