import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'

import { meterQuery, useMeasure, useTakeReading } from '../../../../api/judge'
import type { RailReading } from '../../../../api/power'
import { messageOf } from '../../../../api/problem'
import { useKept } from '../../../../data/useDrafts'
import { Button } from '../../../../kit/Button'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { ListTable, Scroll, Whole } from '../../../../kit/ListTable'
import { Mark } from '../../../../kit/Mark'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { RecordForm } from '../../../../kit/RecordForm'
import { color, font } from '../../../../theme'
import type { PowerProps } from './PowerUp'

/** The rails of the supplies as bars between their limits, and what is drawn from them. */
export function Rails({ machine, power, mayWrite }: PowerProps) {
  const meter = useQuery(meterQuery)
  if (power.supplies.length === 0) return null
  const byMeter = mayWrite && Boolean(meter.data?.address)
  const several = power.supplies.length > 1
  return (
    <Part title="Rails" faint="As measured last under load, between their limits">
      {mayWrite && <MeasureRail machine={machine} power={power} mayWrite />}
      {power.rails.length === 0 ? <p>No rail is named yet. Say on the supply which ones the machine needs.</p> : (
        <Scroll>
          <ListTable>
            <thead><tr>{several && <th>Supply</th>}<th>Rail</th><th>Volts</th><th>Low, measured, high</th><th>Load</th>
              <th>Drawn, rated (A)</th>
              {byMeter && <th><span className="only-read">Meter</span></th>}</tr></thead>
            <tbody>{power.rails.map((rail) => (
              <tr key={`${String(rail.supplyId)} ${rail.rail}`}>
                {several && <td>{power.supplies.find(({ id }) => id === rail.supplyId)?.name}</td>}
                <Whole><Mono>{rail.rail}</Mono>{rail.needed && <><br /><Faint>needed</Faint></>}</Whole>
                <Whole><Mono>{rail.volts === null ? '-' : rail.volts.toFixed(2)}</Mono></Whole>
                <td><Bar rail={rail} /></td>
                <Whole>{rail.volts === null ? 'not measured' : <>{loads[rail.load]}<br /><Faint>{rail.on}</Faint></>}</Whole>
                <Whole><Mono>{amperes(rail.draw)} / {amperes(rail.rating)}</Mono></Whole>
                {byMeter && <td><ReadRail machineId={machine.id} rail={rail} /></td>}
              </tr>
            ))}</tbody>
          </ListTable>
        </Scroll>
      )}
    </Part>
  )
}

const loads: Record<RailReading['load'], string> = { dummy: 'dummy load', machine: 'the machine', none: 'no load',
  '': 'not said' }
const amperes = (value: number | null) => (value === null ? '?' : value.toFixed(2))

/** A reading as a mark between its limits; what lies outside stands at the edge, with its word. */
function Bar({ rail }: { rail: RailReading }) {
  const { volts, low, high } = rail
  if (low === null || high === null) return <Faint>limits not known</Faint>
  const span = high - low || 1
  const at = volts === null ? undefined : Math.min(1, Math.max(0, (volts - (low - span / 2)) / (span * 2)))
  const isOut = volts !== null && (volts < low || volts > high)
  return (
    <Drawn>
      <Mono>{low.toFixed(2)}</Mono>
      <svg viewBox="0 0 120 16" role="img" aria-label={volts === null ? 'not measured' : isOut ? 'outside' : 'inside'}>
        <path d="M0 8h120" stroke={color.line} strokeWidth="2" />
        <path d="M30 8h60" stroke={color.reed} strokeWidth="4" />
        <path d="M30 3v10M90 3v10" stroke={color.reed} strokeWidth="1.5" />
        {at !== undefined && <path d="M0 1v14" transform={`translate(${String(2 + at * 116)})`}
          stroke={isOut ? color.rust : color.ink} strokeWidth="3" />}
      </svg>
      <Mono>{high.toFixed(2)}</Mono>
      {isOut && <strong><Mark kind="problem" /> outside</strong>}
    </Drawn>
  )
}

/** Has the meter read a rail, straight into the record: the leads are held to it, under the load that was said last. */
function ReadRail({ machineId, rail }: { machineId: number; rail: RailReading }) {
  const measure = useMeasure(machineId)
  const take = useTakeReading()
  const error = measure.error ?? take.error
  return (
    <>
      <Button $small isPending={measure.isPending || take.isPending} aria-label={`Read ${rail.rail} by the meter`}
        onPress={() => {
          measure.mutate({ point: rail.rail, quantity: 'volts', supplyId: rail.supplyId,
            load: rail.load === 'machine' ? 'machine' : 'dummy' }, { onSuccess: ({ id }) => { take.mutate(id) } })
        }}>Read</Button>
      {(error ?? take.data?.trouble) && <Notice tone="stop" word="Not read.">{error ? messageOf(error)
        : take.data?.trouble}</Notice>}
    </>
  )
}

function MeasureRail({ machine, power }: PowerProps) {
  const measure = useMeasure(machine.id)
  const [line, setLine, forget] = useKept(`rail of ${String(machine.id)}`, '')
  const [load, setLoad] = useState<'dummy' | 'machine' | 'none'>('dummy')
  const [supply, setSupply] = useState('')
  return (
    <RecordForm keptAs={null} error={measure.error} isPending={measure.isPending} action="Save" leave="Clear"
      onCancel={() => { forget(); measure.reset() }}
      onSubmit={() => {
        measure.mutate({ line, load, supplyId: Number(supply) || (power.supplies.length === 1 ? power.supplies[0]?.id
          : undefined) }, { onSuccess: forget })
      }}>
      <FieldGrid>
        <Field label="Rail and volts" name="line" value={line} onChange={(text) => { setLine(() => text) }} mono isRequired
          placeholder="+5 5.02 V" hint="Or with its limits: +12 11.8 V = 11.4 .. 12.6 V" />
        <Choice label="Loaded with" value={load} onChange={setLoad} options={[{ value: 'dummy', text: 'a dummy load' },
          { value: 'machine', text: 'the machine' }, { value: 'none', text: 'nothing' }]} />
        {power.supplies.length > 1 && <Choice label="Of" value={supply} onChange={setSupply}
          options={[{ value: '', text: 'the one that has the rail' },
            ...power.supplies.map(({ id, name }) => ({ value: String(id), text: name }))]} />}
      </FieldGrid>
    </RecordForm>
  )
}

const Mono = styled.span`
  font-family: ${font.mono};
  font-size: 14px;
`
const Drawn = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 6px;
  max-width: 240px;
  svg[viewBox='0 0 120 16'] { width: 120px; flex: none; }
  strong { color: ${color.rust}; white-space: nowrap; }
`
