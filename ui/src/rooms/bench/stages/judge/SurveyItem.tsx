import { useState } from 'react'
import styled from 'styled-components'

import { type Condition, type GuideItem, type SeenFinding, type SurveyView, useJudgeItem } from '../../../../api/judge'
import { Button, Buttons } from '../../../../kit/Button'
import { Cautions } from '../../../../kit/Cautions'
import { Choice, Field } from '../../../../kit/Field'
import { Notice } from '../../../../kit/Notice'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { Facts, InHand } from '../../../../kit/Part'
import { color, space } from '../../../../theme'
import { keepUnder } from '../../../../data/drafts'
import { thenGoOn } from '../../../../data/later'
import { useKept } from '../../../../data/useDrafts'
import { FindingForm } from './FindingForm'
import { choicesFor, seenAgain } from './seenAgain'

type Props = { machineId: number; condition: Condition; survey: SurveyView; item: GuideItem; onNext: () => void }

/** One subsystem: what to look for, how to grade it, what was there before, and what is there now. */
export function SurveyItem({ machineId, condition, survey, item, onNext }: Props) {
  const judge = useJudgeItem(machineId, survey.id)
  const known = condition.findings.filter(({ subsystem }) => subsystem === item.subsystem)
  const [seen, change, forget] = useKept(`survey ${String(survey.id)} ${item.subsystem}`,
    { now: {} as Record<string, { is: string; note: string }>, fresh: [] as SeenFinding[] })
  const { now, fresh } = seen
  const findingKeptAs = `finding of survey ${String(survey.id)} ${item.subsystem}`
  const [adding, setAdding] = useState(false)
  const again = known.flatMap((finding) => seenAgain(finding, now[finding.key]))
  const send = (coverage: 'inspected' | 'not inspected' | 'absent') => {
    const findings = coverage === 'inspected' ? [...again, ...fresh] : []
    judge.mutate({ subsystem: item.subsystem, version: survey.version, coverage,
      note: coverage === 'not inspected' ? 'left out' : '', observed: findings },
    thenGoOn(() => { forget(); onNext() }))
  }
  const found = again.length + fresh.length
  const waiting = known.filter(({ key, waits }) => waits && !now[key]?.is)
  const allAsBefore = () => {
    change((before) => ({ ...before, now: { ...before.now,
      ...Object.fromEntries(waiting.map(({ key }) => [key, { is: 'same', note: before.now[key]?.note ?? '' }])) } }))
  }
  return (
    <InHand aria-label={item.name}>
      <h3>{item.name}</h3>
      <Cautions cautions={item.cautions} />
      <Facts>
        <dt>Look for</dt><dd>{item.lookFor}</dd>
        <dt>How to grade</dt><dd>{item.grading}</dd>
        {item.parts.length > 0 && <><dt>On the sheets</dt>
          <dd>{item.parts.map(({ board, place, words }) =>
            `${board}${place === board ? '' : ` ${place}`}${words && `: ${words}`}`).join('\n')}
              {item.more > 0 && `\nand ${String(item.more)} more`}</dd></>}
      </Facts>
      {known.map((finding) => {
        const say = now[finding.key] ?? { is: '', note: '' }
        const put = (changed: Partial<typeof say>) => {
          change((before) => ({ ...before, now: { ...before.now, [finding.key]: { ...say, ...changed } } }))
        }
        return (
          <Known key={finding.key}>
            <span><strong>{finding.kind}</strong>, {finding.where || 'no place'} <Faint>
              {finding.story.words}
            </Faint></span>
            <Choice label={`${finding.kind}, ${finding.where}: now`} value={say.is} options={choicesFor(finding)}
              onChange={(is) => { put({ is }) }} />
            {say.is && <Field label="What one sees" value={say.note} onChange={(note) => { put({ note }) }} />}
          </Known>
        )
      })}
      {fresh.map((one, i) => (
        <p key={i}><strong>
          {one.new?.kind}
        </strong>, {[one.new?.designator, one.new?.place].filter(Boolean).join(' ')}: {one.severity} <Button
          $tone="quiet"
            onPress={() => { change((before) => ({ ...before, fresh: before.fresh.filter((_, j) => j !== i) })) }}>Take
              it out</Button></p>
      ))}
      {adding && (
        <FindingForm
          keptAs={findingKeptAs}
          machineId={machineId}
          item={item}
          severities={condition.severities}
          error={null}
          isPending={false}
          action="Save"
          onSubmit={(one) => {
            change((before) => ({ ...before, fresh: [...before.fresh, one] }))
            keepUnder(findingKeptAs, undefined)
            setAdding(false)
          }}
          onCancel={() => { setAdding(false) }}
        />
      )}
      <NotSaved error={judge.error} />
      {!adding && waiting.length > 0 && <Notice tone="attention" word="How is it now?">
        {waiting.length === 1 ? 'One finding was there before; say how it is now.'
          : `${String(waiting.length)} findings were there before; say of each how it is now.`} <Button $tone="quiet" onPress={allAsBefore}>{waiting.length === 1 ? 'As before' : 'All as before'}</Button>
      </Notice>}
      {!adding && (
        <Buttons>
          <Button $tone="main" autoFocus={waiting.length === 0} isDisabled={waiting.length > 0}
            isPending={judge.isPending} onPress={() => { send('inspected') }}>
            {found > 0 ? `Inspected, ${String(found)} found` : 'Inspected, nothing new found'}
          </Button>
          <Button onPress={() => { setAdding(true) }}>Found something</Button>
          <Button onPress={() => { send('not inspected') }}>Not inspected</Button>
          <Button onPress={() => { send('absent') }}>It has none</Button>
        </Buttons>
      )}
    </InHand>
  )
}

const Known = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 220px), 1fr));
  gap: ${space(1)};
  align-items: end;
  padding-left: ${space(1)};
  border-left: 3px solid ${color.line};
`
