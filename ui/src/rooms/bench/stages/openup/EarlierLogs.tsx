import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import type { Schemas } from '../../../../api/client'
import { type Procedure, teardownQuery } from '../../../../api/openup'
import { dayOf } from '../../../../features/history/moment'
import { Button } from '../../../../kit/Button'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { MakeProcedure } from './MakeProcedure'
import { StepFacts } from './StepFacts'

type Props = { logs: Schemas['Teardown'][]; procedures: Procedure[]; model: string; mayWrite: boolean }

/** Logs that ended, and the procedures of the model. */
export function EarlierLogs({ logs, procedures, model, mayWrite }: Props) {
  const [shown, setShown] = useState<number>()
  const [making, setMaking] = useState<number>()
  if (logs.length === 0 && procedures.length === 0) return null
  return (
    <Part title="Earlier"
      faint={procedures.length > 0 ? <Link to="/library/procedures">
        {procedures.length === 1 ? `1 procedure of the ${model}`
          : `${String(procedures.length)} procedures of the ${model}`}
      </Link> : undefined}>
      <ul>
        {logs.map((log) => (
          <li key={log.id}>
            {dayOf(log.startedAt)} <strong>{log.purpose}</strong>: {log.outcome === 'closed' ? 'closed'
              : 'put together'}{log.endedAt && ` ${dayOf(log.endedAt)}`}{log.endedBy && ` by ${log.endedBy}`}. <Faint>
                {log.why}
              </Faint>{' '}
            <Button $tone="quiet" aria-label={`Steps of ${log.purpose}`}
              onPress={() => { setShown(shown === log.id ? undefined : log.id) }}>Steps</Button>
            {mayWrite && model && <Button $tone="quiet" aria-label={`Make ${log.purpose} the procedure of the model`}
              onPress={() => { setMaking(log.id) }}>Make it the procedure</Button>}
            {making === log.id && <MakeProcedure teardownId={log.id} onDone={() => { setMaking(undefined) }} />}
            {shown === log.id && <Steps id={log.id} />}
          </li>
        ))}
      </ul>
    </Part>
  )
}

function Steps({ id }: { id: number }) {
  const log = useQuery(teardownQuery(id)).data
  return <ol>{log?.steps.map((step) =>
    <li key={step.id}><strong>{step.n}. {step.off}</strong><StepFacts step={step} /></li>)}</ol>
}
