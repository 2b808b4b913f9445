import { useState } from 'react'
import styled from 'styled-components'

import { type RungFields, type RungView, useAddRung, useBuildLadder, useChangeRung,
  useVoidRung } from '../../../../api/power'
import { messageOf } from '../../../../api/problem'
import { Button, Buttons } from '../../../../kit/Button'
import { Cautions } from '../../../../kit/Cautions'
import { EditRecord } from '../../../../kit/EditRecord'
import { Mark } from '../../../../kit/Mark'
import { Notice } from '../../../../kit/Notice'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { Unbroken } from '../../../../kit/Unbroken'
import { usePanel } from '../../../../kit/usePanel'
import { color, space } from '../../../../theme'
import { ApplyPower } from './ApplyPower'
import type { PowerProps } from './PowerUp'
import { RungForm } from './RungForm'

/** The rungs from the minimum up, each with its expected sign and when to stop, and what became of it. */
export function Ladder({ machine, power, mayWrite }: PowerProps) {
  const [adding, setAdding] = usePanel('rung')
  const [applying, setApplying] = usePanel('power')
  const build = useBuildLadder(machine.id)
  const add = useAddRung(machine.id)
  const isBuilt = power.rungs.length > 0
  return (
    <Part title="Ladder" faint="The minimum at the foot, then one addition at a time"
      action={mayWrite && <>
        {isBuilt && !applying && <Button $small $tone="main" onPress={() => { setApplying(true) }}>
          Record that power was applied</Button>}
        {!adding && <Button $small onPress={() => { setAdding(true) }}>Add a rung</Button>}
      </>}>
      {applying && isBuilt && <ApplyPower machineId={machine.id} power={power} onDone={() => { setApplying(false) }} />}
      {power.worked && (
        <Notice tone="stop" word={`It worked last on ${power.worked}.`}>
          {power.changed.length > 0 ? `Changed since: ${power.changed.join('; ')}.` : 'No board came in or left since.'}
        </Notice>
      )}
      {adding && <RungForm keptAs={`rung of ${String(machine.id)}`} action="Add" error={add.error}
        isPending={add.isPending} onCancel={() => { setAdding(false) }}
        onSubmit={(rung) => { add.mutate(rung, { onSuccess: () => { setAdding(false) } }) }} />}
      {isBuilt ? (
        <Rungs aria-label="Rungs, from the lowest">
          {power.rungs.map((rung, i) => <Rung key={rung.id} n={i + 1} rung={rung} mayWrite={mayWrite} />)}
        </Rungs>
      ) : (
        <>
          <p>There is no ladder yet. By what is fitted, by rule of thumb:</p>
          <Rungs aria-label="Proposed rungs, from the lowest">
            {power.proposed.map((rung, i) => (
              <Row key={rung.step}><Step $state=""><div><strong>{i + 1}. {rung.step}</strong>
                <Told rung={rung} /></div></Step></Row>
            ))}
          </Rungs>
          {mayWrite && <Buttons><Button $tone="main" isPending={build.isPending} onPress={() => { build.mutate() }}>
            Build this ladder</Button></Buttons>}
          {build.error && <Notice tone="stop" word="Not built.">{messageOf(build.error)}</Notice>}
        </>
      )}
      <p><Faint>Before each addition: off, lead out, lamps dark. One thing at a time.</Faint></p>
      <Cautions cautions={power.cautions.filter(({ key }) => key !== 'mains' && key !== 'tube')} />
    </Part>
  )
}

function Rung({ n, rung, mayWrite }: { n: number; rung: RungView; mayWrite: boolean }) {
  const [editing, setEditing] = useState(false)
  const change = useChangeRung(rung.id)
  const voiding = useVoidRung()
  if (editing) {
    return (
      <Row>
        <EditRecord<RungView, RungFields & { version: number }> keptAs={`rung ${String(rung.id)}`} record={rung}
          change={change} newerIn={(newer) => newer.rung} names={{ step: 'rung', sign: 'expected sign', stop: 'stop when' }}
          onDone={() => { setEditing(false) }}>
          {(form) => <RungForm start={rung} action="Save" {...form} />}
        </EditRecord>
      </Row>
    )
  }
  return (
    <Row>
      <Step $state={rung.result}>
        <div>
          <strong><Mark kind={rung.result === 'not' ? 'problem' : rung.result ? 'done' : 'none'} /> {n}. {rung.step}</strong>
          <Told rung={rung} />
          {rung.signs.map((sign) => <span key={sign}>By its signs: {sign}</span>)}
        </div>
        <div>
          <span><Unbroken text={rung.result === '' ? 'not tried'
            : `${rung.result === 'not' ? 'not as expected' : 'as expected'} on ${rung.on}`} />
            {rung.cannotTell && `; ${rung.cannotTell}`}</span>
          {mayWrite && (
            <Buttons>
              <Button $small $tone="quiet" aria-label={`Edit rung ${String(n)}`} onPress={() => { setEditing(true) }}>
                Edit</Button>
              <Button $small $tone="quiet" aria-label={`Take off rung ${String(n)}`} isPending={voiding.isPending}
                onPress={() => { voiding.mutate(rung) }}>Take off</Button>
            </Buttons>
          )}
          <NotSaved error={voiding.error} />
        </div>
      </Step>
    </Row>
  )
}

function Told({ rung: { sign, stop } }: { rung: RungFields }) {
  return <>{sign && <span>Expect: {sign}</span>}{stop && <span>Stop: {stop}</span>}</>
}

// Read from the lowest rung, drawn with that at the foot.
const Rungs = styled.ol`
  display: flex;
  flex-direction: column-reverse;
  padding: 0 ${space(1)};
  border-left: 4px solid ${color.edge};
  border-right: 4px solid ${color.edge};
`
const Row = styled.li`
  margin: 0 -${space(1)};
  padding: 4px ${space(1)};
  border-bottom: 3px solid ${color.line};
`
const Step = styled.div<{ $state: string }>`
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 0 ${space(2)};
  padding: 4px;
  background: ${({ $state }) => ($state === 'not' ? color.rustGround : 'none')};
  svg { vertical-align: -3px; }
  div > span { display: block; color: ${color.faint}; font-size: 15px; line-height: 1.35; }
  strong { overflow-wrap: anywhere; }
  @media (max-width: 600px) { grid-template-columns: minmax(0, 1fr); }
`
