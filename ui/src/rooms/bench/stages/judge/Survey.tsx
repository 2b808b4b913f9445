import { useState } from 'react'

import { type Condition, useEndSurvey, useStartSurvey } from '../../../../api/judge'
import { messageOf } from '../../../../api/problem'
import { today } from '../../../../features/history/moment'
import { Button, Buttons } from '../../../../kit/Button'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { usePanel } from '../../../../kit/usePanel'
import { Left } from '../Left'
import { SurveyItem } from './SurveyItem'
import { SurveyList } from './SurveyList'

type Props = { machineId: number; condition: Condition; mayWrite: boolean }

/** A guided inspection, subsystem by subsystem, fitted to what the machine holds. */
export function Survey({ machineId, condition, mayWrite }: Props) {
  const start = useStartSurvey(machineId)
  const [asking, setAsking] = usePanel('earlier survey')
  const { running, surveys } = condition
  const last = surveys.at(-1)
  if (running) return <Running key={running.id} machineId={machineId} condition={condition} mayWrite={mayWrite} />
  return (
    <Part title="Survey" faint={last ? `last on ${last.on}${last.by && `, by ${last.by}`}` : 'There was none yet.'}>
      {surveys.length > 0 && <Left words="Not inspected" left={condition.notInspected}
        done="Every subsystem was looked at." />}
      {mayWrite && !asking && <Buttons>
        <Button $tone="main" isPending={start.isPending} onPress={() => { start.mutate({}) }}>Begin a survey</Button>
          <Button $small onPress={() => { setAsking(true) }}>Enter one made earlier</Button>
      </Buttons>}
      {start.error && !asking && <Notice tone="stop" word="Not begun.">{messageOf(start.error)}</Notice>}
      {asking && (
        <RecordForm
          keptAs={`survey of ${String(machineId)}`}
          error={start.error}
          isPending={start.isPending}
          action="Begin it"
          onSubmit={(form) => { start.mutate({ on: textOf(form, 'on'), by: textOf(form, 'by') },
            { onSuccess: () => { setAsking(false) } }) }}
          onCancel={() => { setAsking(false) }}
        >
          <FieldGrid>
            <Field label="Made on" name="on" defaultValue={today()} mono autoFocus />
            <Field label="Who looked" name="by" />
          </FieldGrid>
        </RecordForm>
      )}
    </Part>
  )
}

function Running({ machineId, condition, mayWrite }: Props) {
  const { guide, running } = condition
  const looks = running?.inspections ?? []
  const isDone = (subsystem: string) => looks.some((one) => one.subsystem === subsystem)
  const [at, setAt] = useState(() => guide.findIndex(({ subsystem }) => !isDone(subsystem)))
  const item = guide[at]
  if (!running) return null
  const next = () => { setAt((before) => guide.findIndex(({ subsystem }, i) => i > before && !isDone(subsystem))) }
  return (
    <Part title={`Survey of ${running.on}`}
      faint={<>{looks.length} of {guide.length} looked at{running.by && <Faint> · by {running.by}</Faint>}</>}>
      <SurveyList guide={guide} inspections={looks} at={at} onGo={setAt} />
      {item ? (
        mayWrite && <SurveyItem key={item.subsystem} machineId={machineId} condition={condition} survey={running}
          item={item} onNext={next} />
      ) : (
        mayWrite && <End machineId={machineId} condition={condition} onBack={() => { setAt(0) }} />
      )}
      {item && mayWrite && <Buttons><Button $small onPress={() => { setAt(-1) }}>End the survey here</Button></Buttons>}
    </Part>
  )
}

function End({ machineId, condition, onBack }: { machineId: number; condition: Condition; onBack: () => void }) {
  const end = useEndSurvey(machineId)
  const { running, guide, cosmeticGrades } = condition
  const [cosmetic, setCosmetic] = useState(condition.cosmetic)
  if (!running) return null
  const missing = guide.filter(({ subsystem }) =>
    !running.inspections.some((one) => one.subsystem === subsystem)).map(({ name }) => name)
  return (
    <RecordForm
      keptAs={`end of the survey of ${String(machineId)}`}
      error={end.error}
      isPending={end.isPending}
      action="End the survey"
      leave="Look at more"
      onSubmit={(form) => {
        end.mutate({ id: running.id, version: running.version, cosmetic, note: textOf(form, 'note') })
      }}
      onCancel={onBack}
    >
      {missing.length > 0 && <Notice tone="attention" word="Not inspected:">{missing.join(', ')}. That stays
        visible.</Notice>}
      <Choice
        label="Cosmetic grade"
        value={cosmetic}
        options={[{ value: '', text: 'none given' },
          ...cosmeticGrades.map(({ grade, means }) => ({ value: grade, text: `${grade}: ${means}` }))]}
        onChange={setCosmetic}
      />
      <Field label="Note" name="note" rows={2} defaultValue={running.note} />
    </RecordForm>
  )
}
