import { useRef, useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type Answered, type Round, type RoundStop, useAnswerStop } from '../../api/upkeep'
import { thenGoOn } from '../../data/later'
import { PhotoButton } from '../../features/pictures/PhotoButton'
import { Button, Buttons } from '../../kit/Button'
import { Choice, Field, Tick } from '../../kit/Field'
import { Faint } from '../../kit/Page'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { late } from '../../kit/hours'
import { color, space } from '../../theme'

type How = Answered['how']

/** One stop of a round: where it is, what to look for, and how it went, in one tap where nothing is odd. */
export function StopForm({ round, stop, onDone, onLeave }: { round: Round; stop: RoundStop; onDone: () => void
  onLeave: () => void }) {
  const answer = useAnswerStop(round.id, stop.n)
  const form = useRef<HTMLDivElement>(null)
  const how = useRef<How>('did')
  const [takenOut, setTakenOut] = useState(false)
  const [pictures, setPictures] = useState(0)
  const [now, setNow] = useState<Record<string, 'same' | 'worse' | 'better' | 'gone' | ''>>({})
  const [wrong, setWrong] = useState<Record<string, string>>({})
  const { deed } = stop
  const say = (as: How) => {
    how.current = as
    form.current?.querySelector('form')?.requestSubmit()
  }
  const send = (data: FormData) => {
    const as = how.current
    how.current = 'did' // what Enter means
    const found = textOf(data, 'found')
    const why = textOf(data, 'why')
    if (as === 'not' && !why) {
      setWrong({ why: 'Say why: not found, locked, no light.' })
      return
    }
    setWrong({})
    answer.mutate({ how: as, was: deed?.version, saidAt: deed ? undefined : new Date().toISOString(), on: deed?.on, why: as === 'not' ? why : undefined, note: textOf(data, 'note'),
      measured: deed ? undefined : textOf(data, 'measured'), takenOut: takenOut && !deed,
      found: found && !deed ? { kind: found } : undefined,
      now: Object.entries(now).flatMap(([key, one]) => one ? [{ key, how: one }] : []) }, thenGoOn(onDone))
  }
  const name = `${stop.accession} ${stop.name}`.trim()
  return (
    <Card ref={form}>
      <h2 tabIndex={-1}>{stop.n}. {name}</h2>
      <Where>{stop.place || 'nobody said where it is'}</Where>
      <p>{stop.parts.map(({ board, place }) => board === place ? board : `${board}: ${place}`).join('; ')}{' '}
        <Faint>{stop.overdueDays > 0 ? `${late(stop.overdueDays)}, ${stop.because}` : stop.because}</Faint></p>
      <RecordForm keptAs={`round ${String(round.id)} stop ${String(stop.n)}`} error={answer.error} wrong={wrong}
        isPending={answer.isPending} action="Done" leave="Later" onSubmit={send} onCancel={onLeave}>
        {!deed && stop.findings.map((one) => (
          <Choice key={one.key} label={`${one.where}, ${one.kind} (${one.severity})`} value={now[one.key] ?? ''}
            name={`now ${one.key}`} onChange={(value) => { setNow({ ...now, [one.key]: value }) }}
            options={[{ value: '', text: 'not said' }, { value: 'same', text: 'the same' }, { value: 'worse', text: 'worse' },
              { value: 'better', text: 'better' }, { value: 'gone', text: 'gone' }]} />
        ))}
        {!deed && stop.machineId && round.rule.measures && <Field label={`Measured, in ${round.rule.measures}`} name="measured"
          mono placeholder={`${stop.parts[0]?.place.split(' ')[0] ?? ''} 3.6 V`.trim()} />}
        <Buttons>
          {stop.machineId && <PhotoButton owner={{ machine: stop.machineId }} label={pictures > 0
            ? `Another photo (${String(pictures)} taken)` : 'Photo'} onKept={(ids) => { setPictures(pictures + ids.length) }} />}
          {round.rule.looks && <Button isPending={answer.isPending} onPress={() => { say('seen') }}>Only seen</Button>}
        </Buttons>
        <details open={deed !== null || undefined}>
          <summary>Something is odd there</summary>
          <Odd>
            {!deed && stop.machineId && <Field label="Found" name="found" placeholder="leaking" />}
            {!deed && stop.parts.length > 0 && stop.machineId && <Tick label="Taken out: the place is empty now" isOn={takenOut}
              onChange={setTakenOut} />}
            <Field label="Note" name="note" rows={2} defaultValue={deed?.note} />
            <Field label="Could not be done, because" name="why" placeholder="not on its shelf" defaultValue={deed?.why} />
            <div><Button $small isPending={answer.isPending} onPress={() => { say('not') }}>Could not be done</Button></div>
            {stop.machineId && <Link to={`/bench/${String(stop.machineId)}/judge`}>To the machine</Link>}
          </Odd>
        </details>
      </RecordForm>
    </Card>
  )
}

const Card = styled.div`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  padding: ${space(2)};
  border: 2px solid ${color.slate};
  h2 { font-size: 20px; overflow-wrap: anywhere; }
  summary { cursor: pointer; padding: 8px 0; }
`
const Where = styled.p`
  font-size: 18px;
  font-weight: 700;
`
const Odd = styled.div`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  padding-top: ${space(1)};
`
