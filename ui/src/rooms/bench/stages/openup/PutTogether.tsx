import { useState } from 'react'
import styled from 'styled-components'

import { type StepView, type TeardownView, useReverseStep, type Wiring } from '../../../../api/openup'
import { ProblemError } from '../../../../api/problem'
import { Button, Buttons } from '../../../../kit/Button'
import { Cautions } from '../../../../kit/Cautions'
import { Field, Tick } from '../../../../kit/Field'
import { Mark } from '../../../../kit/Mark'
import { Notice } from '../../../../kit/Notice'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { InHand } from '../../../../kit/Part'
import { color, space } from '../../../../theme'
import { howItSits } from './howItSits'
import { inWords, StepFacts } from './StepFacts'

/** The log reversed: what came off last goes on first, ticked by whoever does it. */
export function PutTogether({ log, wiring, mayWrite }: { log: TeardownView; wiring: Wiring; mayWrite: boolean }) {
  const [chosen, setChosen] = useState<number>()
  const [met, setMet] = useState('')
  const at = chosen ?? log.next
  const rest = [...log.steps].reverse()
  const current = log.steps.find(({ n }) => n === at)
  if (log.steps.length === 0) return <p>Nothing came off.</p>
  return (
    <>
      {met && <Notice tone="attention" word="Somebody was faster.">{met}</Notice>}
      {current ? (
        <Back key={`${String(current.id)} ${String(current.version)}`} step={current} wiring={wiring}
          isNext={current.n === log.next} mayWrite={mayWrite} onDone={() => { setChosen(undefined); setMet('') }}
            onMet={setMet} />
      ) : (
        <p role="status">All {log.steps.length} steps are reversed.</p>
      )}
      <Order aria-label="Order of putting together">
        {rest.map((step) => (
          <li key={step.id} aria-current={step.n === at ? 'step' : undefined}>
            <Mark kind={step.state === 'back' ? 'done' : step.state === 'skipped' ? 'none'
              : step.n === log.next ? 'working' : 'later'} />
            <span>{step.n}. {step.off} <Faint>
              {[wordOf(step), ...leftOf(step),
                step.open.length > 0 && step.state !== 'off' && `${step.open.join(', ')} still open`].filter(Boolean)
                  .join('; ')}
            </Faint></span>
            {mayWrite && step.n !== at && <Button $tone="quiet" aria-label={`Show step ${String(step.n)}, ${step.off}`}
              onPress={() => { setChosen(step.n) }}>Show</Button>}
          </li>
        ))}
      </Order>
    </>
  )
}

const wordOf = ({ state, reason }: StepView) => (state === 'back' ? 'back on'
  : state === 'skipped' ? `left off: ${reason ?? ''}` : 'off')
const leftOf = ({ left, fasteners }: StepView) => left.map(({ fastener, count, reason }) =>
  `${String(count)} of ${fasteners[fastener]?.kind ?? ''} left over${reason ? `: ${reason}` : ''}`)

function Back({ step, wiring, isNext, mayWrite, onDone, onMet }: { step: StepView; wiring: Wiring; isNext: boolean;
  mayWrite: boolean; onDone: () => void; onMet: (words: string) => void }) {
  const reverse = useReverseStep()
  const [plugged, setPlugged] = useState<string[]>(step.connectors.filter((name) =>
    !step.open.includes(name) && step.state !== 'off'))
  const [left, setLeft] = useState<Record<number, { count: string; reason: string }>>(
    Object.fromEntries(step.left.map(({ fastener, count, reason }) =>
      [fastener, { count: String(count), reason: reason ?? '' }])),
  )
  const [skipping, setSkipping] = useState(false)
  const [reason, setReason] = useState(step.reason ?? '')
  const send = (state: 'back' | 'skipped' | 'off') => {
    const over = Object.entries(left).flatMap(([fastener, { count, reason: why }]) => (Number(count) > 0
      ? [{ fastener: Number(fastener), count: Number(count), reason: why }] : []))
    reverse.mutate({ id: step.id, version: step.version, state, reason: state === 'skipped' ? reason : '',
      left: state === 'back' ? over : [], plugged }, {
      onSuccess: onDone,
      onError: (error) => { if (error instanceof ProblemError && error.problem?.newer?.step)
        onMet(`Step ${String(step.n)} was changed meanwhile; it stands here as it is now.`) },
    })
  }
  return (
    <InHand aria-label={`Step ${String(step.n)}`}>
      <h3>{isNext ? 'Next: ' : ''}{step.n}. {step.off} goes on</h3>
      {!isNext && step.state === 'off' && <Notice tone="attention" word="Out of order.">
        What came off after it is still off.
      </Notice>}
      {step.state === 'off' && step.first.length > 0 && <Notice tone="attention" word="Too early.">
        Back first: {step.first.join(', ')}.</Notice>}
      {step.special && <Notice tone="attention" word="The order matters here.">
        Nothing before it, nothing after it.
      </Notice>}
      <Cautions cautions={step.backOn} />
      <StepFacts step={step} large />
      {mayWrite && (
        <>
          {step.connectors.length > 0 && (
            <fieldset>
              <legend>Plugged in again</legend>
              {step.connectors.map((name) => (
                <Tick key={name} label={<span>{name}<Faint>{howItSits(wiring, name)}</Faint></span>}
                  isOn={plugged.includes(name)}
                    onChange={(isOn) => { setPlugged(isOn ? [...plugged, name] : plugged.filter((one) =>
                      one !== name)) }} />
              ))}
            </fieldset>
          )}
          {step.fasteners.map((fastener, i) => {
            const over = left[i] ?? { count: '', reason: '' }
            return (
              <Over key={i}>
                <Field label={`Left over of ${inWords(fastener)}`} value={over.count} inputMode="numeric"
                  placeholder="0"
                    onChange={(count) => { setLeft({ ...left, [i]: { ...over, count: count.replace(/\D/g, '') } }) }} />
                {Number(over.count) > 0 && <Field label="What became of it" value={over.reason}
                  placeholder="the hole is stripped; in bag 4"
                    onChange={(why) => { setLeft({ ...left, [i]: { ...over, reason: why } }) }} />}
              </Over>
            )
          })}
          {skipping && <Field label="Why it stays off" value={reason} onChange={setReason} autoFocus />}
          <NotSaved error={reverse.error} />
          <Buttons>
            {!skipping && <Button $tone="main" isPending={reverse.isPending} onPress={() => { send('back') }}>
              {step.state === 'off' ? 'It is back on' : 'Keep it as back on'}
            </Button>}
            {skipping ? <Button $tone="main" isPending={reverse.isPending} onPress={() => { send('skipped') }}>
              Leave it off
            </Button> : <Button onPress={() => { setSkipping(true) }}>It stays off</Button>}
            {step.state !== 'off' && <Button isPending={reverse.isPending} onPress={() => { send('off') }}>
              It is off again
            </Button>}
          </Buttons>
        </>
      )}
    </InHand>
  )
}

const Over = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 200px), 1fr));
  gap: ${space(1)};
`
const Order = styled.ol`
  li { display: flex; align-items: center; gap: ${space(1)}; min-height: 32px; border-bottom: 1px dotted ${color.line};
    overflow-wrap: anywhere; }
  li > span { flex: 1; min-width: 0; }
  li[aria-current] { background: ${color.slateGround}; }
`
