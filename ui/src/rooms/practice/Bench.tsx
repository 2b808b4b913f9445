import { useState } from 'react'
import styled from 'styled-components'

import { type Act, type Exercise, type Practice, usePractise } from '../../api/practice'
import { messageOf } from '../../api/problem'
import { ConsoleLines, ConsoleOutcome } from '../../features/console/ConsoleLines'
import { gateMark, gateName } from '../../features/power/states'
import { Button, Buttons } from '../../kit/Button'
import { Choice } from '../../kit/Field'
import { ListTable, Scroll, Whole } from '../../kit/ListTable'
import { Mark } from '../../kit/Mark'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { font, space } from '../../theme'

/** The bench with the machine: its supply and switch, its cards, the meter, the lamps and the console. */
export function Bench({ told, exercise }: { told: Practice; exercise: Exercise }) {
  const practise = usePractise()
  const [point, setPoint] = useState(told.points[0] ?? '')
  const isOver = exercise.said !== null
  const act = (kind: Act['kind'], what = '') => { practise.mutate({ kind, what }) }
  const button = (words: string, kind: Act['kind'], what = '', isMain = false) => (
    <Button key={words} $small $tone={isMain ? 'main' : undefined} isDisabled={isOver} isPending={practise.isPending}
      onPress={() => { act(kind, what) }}>{words}</Button>
  )
  const last = exercise.log.at(-1)
  return (
    <Part title="Bench" faint={exercise.on ? 'it is on' : 'it is off'}>
      {practise.error && <Notice tone="stop" word="Not done.">{messageOf(practise.error)}</Notice>}
      {last?.slip && <Notice tone="stop" word="On a real machine:">{last.slip}.</Notice>}
      {told.gate && <p>Gate: <Mark kind={gateMark({ state: told.gate.state, danger: false })} />{' '}
        <strong>{gateName(told.gate.state)}</strong>{told.gate.missing[0] && <>: {told.gate.missing[0].what}.</>}</p>}
      <Both>
        <div>
          <h3>Supply</h3>
          <p><Mark kind={exercise.on ? 'working' : 'none'} /> {exercise.on ? 'On' : 'Off, lead out, lamps dark'}, on{' '}
            {exercise.load === 'dummy' ? 'the dummy load' : 'the machine'}
            {exercise.inspected ? '; inspected' : '; nobody inspected it'}</p>
          <Buttons>
            {!exercise.inspected && button('Inspect the supply', 'inspect')}
            {exercise.on ? button('Switch off, lead out', 'switch off') : button('Switch on', 'switch on', '', true)}
            {exercise.load === 'dummy' ? button('Connect it to the machine', 'connect', 'machine')
              : button('Connect it to the dummy load', 'connect', 'dummy')}
          </Buttons>
          <h3>In the machine</h3>
          <ul aria-label="Units">{told.units.map((unit) => (
            <li key={unit}>{unit} {exercise.fitted.includes(unit) ? <><Faint>in</Faint> {button(`Take out ${unit}`, 'take out',
              unit)}</> : <><Faint>out</Faint> {button(`Fit ${unit}`, 'fit', unit)}</>}</li>
          ))}</ul>
        </div>
        <div>
          <h3>Meter</h3>
          <Row>
            <Choice label="Leads at" value={point} options={told.points.map((value) => ({ value, text: value }))}
              onChange={setPoint} />
            <Button isDisabled={isOver} isPending={practise.isPending} onPress={() => { act('measure', point) }}>Measure</Button>
          </Row>
          <Readings told={told} exercise={exercise} />
          <h3>Lamps</h3>
          <p>{exercise.lamps === null ? <Faint>nobody looked since it was switched</Faint>
            : `lit: ${exercise.lamps}`} {button('Look at the lamps', 'look')}</p>
        </div>
      </Both>
      <h3>Console</h3>
      <Buttons>{button('Listen to the console', 'listen')}</Buttons>
      {told.console && <><ConsoleLines said={told.console} label="What it said" /><ConsoleOutcome said={told.console} /></>}
    </Part>
  )
}

/** The newest reading of each point, those of rails beside their limits. */
function Readings({ told, exercise }: { told: Practice; exercise: Exercise }) {
  if (exercise.readings.length === 0) return <p><Faint>Nothing was measured yet.</Faint></p>
  return (
    <Scroll>
      <ListTable aria-label="Readings">
        <thead><tr><th>Point</th><th>Volts</th><th>With</th><th>Limits</th></tr></thead>
        <tbody>{told.points.map((point) => {
          const newest = exercise.readings.findLast((one) => one.point === point)
          const rail = told.rails.find(({ name }) => name === point)
          if (!newest) return null
          const [low, high] = [rail?.low ?? undefined, rail?.high ?? undefined]
          return (
            <tr key={point}>
              <Whole>{point}</Whole><Whole><Mono>{newest.volts.toFixed(2)}</Mono></Whole>
              <Whole>{{ dummy: 'dummy load', machine: 'machine', none: 'off', '': '' }[newest.load]}</Whole>
              <td>{low === undefined || high === undefined ? <Faint>by its kind</Faint>
                : `${low.toFixed(2)} to ${high.toFixed(2)}`}{newest.out && <strong> outside</strong>}</td>
            </tr>
          )
        })}</tbody>
      </ListTable>
    </Scroll>
  )
}

const Both = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 320px), 1fr));
  gap: ${space(1)} ${space(3)};
  h3 { font-size: 16px; margin: ${space(1)} 0 4px; }
`
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: ${space(1)};
`
const Mono = styled.span`
  font-family: ${font.mono};
`
