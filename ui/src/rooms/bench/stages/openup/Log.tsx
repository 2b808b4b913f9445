import { useState } from 'react'
import styled from 'styled-components'

import { type TeardownView, useEndTeardown, type Wiring } from '../../../../api/openup'
import { messageOf } from '../../../../api/problem'
import { dayOf } from '../../../../features/history/moment'
import { Button, Buttons } from '../../../../kit/Button'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { space } from '../../../../theme'
import { AddStep } from './AddStep'
import { MakeProcedure } from './MakeProcedure'
import { PutTogether } from './PutTogether'
import { StepList } from './StepList'
import { Tray } from './Tray'

type Props = { log: TeardownView; wiring: Wiring; boards: string[]; mayWrite: boolean; onEnded: (how: string) => void }

/** The open log of a machine, one way or the other. */
export function Log({ log, wiring, boards, mayWrite, onEnded }: Props) {
  const [way, setWay] = useState<'apart' | 'together'>(log.sums.steps > 0 && log.sums.off < log.sums.steps ? 'together'
    : 'apart')
  const [making, setMaking] = useState(false)
  const end = useEndTeardown()
  const { sums } = log
  const facts = [`${String(sums.off)} of ${steps(sums.steps)} off`, `${String(sums.aside)} fasteners aside`,
    `${String(sums.open)} of ${String(sums.unplugged)} plugs open`]
  return (
    <Part
      title={`Open: ${log.purpose}`}
      faint={`since ${dayOf(log.startedAt)}${log.startedBy && `, by ${log.startedBy}`}`}
      action={mayWrite && (
        <>
          <Button $small $tone={way === 'apart' ? 'main' : undefined} aria-pressed={way === 'apart'}
            onPress={() => { setWay('apart') }}>Take apart</Button>
          <Button $small $tone={way === 'together' ? 'main' : undefined} aria-pressed={way === 'together'}
            onPress={() => { setWay('together') }}>Put together</Button>
        </>
      )}
    >
      <p><strong>{facts.join(' · ')}</strong>{log.procedure && <Faint> · by the procedure {log.procedure}</Faint>}</p>
      {log.procedureWarnings && way === 'apart' && <Notice tone="attention" word="From the procedure.">
        {log.procedureWarnings}
      </Notice>}
      <Columns>
        <div>
          {way === 'apart' ? (
            <>
              {mayWrite && <AddStep log={log} wiring={wiring} boards={boards} />}
              <StepList log={log} wiring={wiring} boards={boards} mayWrite={mayWrite} />
            </>
          ) : (
            <PutTogether log={log} wiring={wiring} mayWrite={mayWrite} />
          )}
        </div>
        <Tray log={log} />
      </Columns>
      {log.changes.length > 0 && (
        <section aria-label="Differences to the procedure">
          <p><strong>Differences to the procedure</strong></p>
          <ul>{log.changes.map(({ step, off, text }) =>
            <li key={`${String(step)} ${text}`}>{step > 0 && `${String(step)}. `}{off}: {text}</li>)}</ul>
        </section>
      )}
      {way === 'together' && log.blockers.length > 0 && (
        <section aria-label="What keeps it from being closed">
          <p><strong>Not closed.</strong> Still missing:</p>
          <ul>{log.blockers.map(({ text }) => <li key={text}>{text}</li>)}</ul>
        </section>
      )}
      {end.error && <Notice tone="stop" word="Not closed.">{messageOf(end.error)}</Notice>}
      {making && <MakeProcedure teardownId={log.id} onDone={() => { setMaking(false) }} />}
      {mayWrite && (
        <Buttons>
          {way === 'together' && <Button $tone={log.blockers.length === 0 ? 'main' : undefined} isPending={end.isPending}
            onPress={() => {
              end.mutate(log.id,
                { onSuccess: ({ outcome, why }) => {
                  onEnded(`${outcome === 'closed' ? 'closed' : 'put together, not as it was'}; ${why}`)
                } })
            }}>Call it closed</Button>}
          {sums.steps > 0 && !making && <Button $small onPress={() => { setMaking(true) }}>
            Make it the procedure of the model
          </Button>}
        </Buttons>
      )}
    </Part>
  )
}

const steps = (count: number) => (count === 1 ? '1 step' : `${String(count)} steps`)

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(220px, 300px);
  gap: ${space(2)};
  align-items: start;
  > div { display: flex; flex-direction: column; gap: ${space(2)}; min-width: 0; }
  @media (max-width: 1100px) { grid-template-columns: minmax(0, 1fr); }
`
