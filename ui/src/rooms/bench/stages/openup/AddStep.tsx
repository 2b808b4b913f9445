import { useQuery } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import styled from 'styled-components'

import { readStepQuery, type Step, type TeardownView, useAddStep, type Wiring } from '../../../../api/openup'
import { Button, Buttons } from '../../../../kit/Button'
import { Cautions } from '../../../../kit/Cautions'
import { Field } from '../../../../kit/Field'
import { keptUnder } from '../../../../data/drafts'
import { Faint } from '../../../../kit/Page'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { useKept } from '../../../../data/useDrafts'
import { PhotoButton } from '../../../../features/pictures/PhotoButton'
import { color, space } from '../../../../theme'
import { StepForm } from './StepForm'
import { WarningList } from './WarningList'

/** The next step: as the procedure says, as a line, or tapped field by field. */
export function AddStep({ log, wiring, boards }: { log: TeardownView; wiring: Wiring; boards: string[] }) {
  const add = useAddStep(log.id)
  const tapping = `tapped step of ${String(log.id)}`
  const [tapped, setTapped] = useState<Partial<Step> | undefined>(() => (keptUnder(tapping) ? {} : undefined))
  const [typed, change, forget] = useKept(`step of ${String(log.id)}`, { line: '', pictures: [] as number[] })
  const { line, pictures } = typed
  const field = useRef<HTMLDivElement>(null)
  const next = log.upcoming[0]
  const done = () => {
    setTapped(undefined)
    forget()
    add.reset()
    requestAnimationFrame(() => field.current?.querySelector('input')?.focus())
  }
  const read = useQuery({ ...readStepQuery(log.id, log.sums.steps, line.trim() ? { line } : { step: next }),
    placeholderData: (before) => before }).data
  if (tapped) {
    return (
      <StepForm
        log={log}
        keptAs={tapping}
        pictures={pictures}
        start={tapped}
        wiring={wiring}
        boards={boards}
        error={add.error}
        isPending={add.isPending}
        action={`Write down step ${String(log.sums.steps + 1)}`}
        onSubmit={(step, taken,
          sent) => { add.mutate({ step, pictures: taken }, { onSuccess: () => { sent(); done() } }) }}
        onCancel={() => { setTapped(undefined); add.reset() }}
      />
    )
  }
  return (
    <div ref={field}>
      {read && (line.trim() || next) && (
        <>
          <Cautions cautions={read.cautions} />
          <WarningList title="" warnings={read.warnings} />
        </>
      )}
      {next && (
        <Usual>
          <p><strong>The procedure goes on:</strong> {next.off}
            {next.tabs.length > 0 && `; mind ${next.tabs.join(', ')}`}</p>
          <Buttons>
            <Button $small onPress={() => { setTapped(next) }}>As the procedure says, with changes</Button>
            <Button $small isPending={add.isPending}
              onPress={() => { add.mutate({ step: next, pictures }, { onSuccess: done }) }}>Just as the procedure
                says</Button>
          </Buttons>
        </Usual>
      )}
      <RecordForm
        keptAs={null}
        error={add.error}
        isPending={add.isPending}
        action={`Write down step ${String(log.sums.steps + 1)}`}
        leave="Tap it instead"
        onSubmit={(form) => { add.mutate({ line: textOf(form, 'line'), pictures }, { onSuccess: done }) }}
        onCancel={() => { setTapped({ off: line.split('|')[0]?.trim() ?? '' }) }}
        onKept={() => { add.reset(); done() }}
      >
        <Field
          label={`Step ${String(log.sums.steps + 1)}: what comes off`}
          name="line"
          value={line}
          onChange={(text) => { change((before) => ({ ...before, line: text })) }}
          mono
          isRequired
          autoFocus
          placeholder={`Lid | 4x M3x8 pan PH1 @${log.freeCell || 'hole'} | tab: front left`}
          hint="4x M3x8 PH1 @A1 (or @hole, @laid) · tab: what may snap · unplug J5, J6 · differs battery: soldered · note:"
        />
        <Buttons>
          <PhotoButton owner={{ machine: log.machineId }}
            onKept={(ids) => { change((before) => ({ ...before, pictures: [...before.pictures, ...ids] })) }} />
          {line.trim() && <Faint>Kept on this device until it is written down.</Faint>}
          {pictures.length > 0 && <span role="status">
            {pictures.length === 1 ? '1 photo goes with it' : `${String(pictures.length)} photos go with it`}
          </span>}
        </Buttons>
      </RecordForm>
    </div>
  )
}

const Usual = styled.div`
  display: flex;
  flex-direction: column;
  gap: 4px;
  margin-bottom: ${space(1)};
  padding-left: ${space(1)};
  border-left: 3px solid ${color.slate};
`
