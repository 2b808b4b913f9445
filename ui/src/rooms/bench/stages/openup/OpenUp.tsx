import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import type { FittedAssembly } from '../../../../api/assemblies'
import type { Machine } from '../../../../api/machines'
import { openedUpQuery, wiringQuery } from '../../../../api/openup'
import { messageOf } from '../../../../api/problem'
import { useAccount } from '../../../../api/session'
import { Notice } from '../../../../kit/Notice'
import { Connectors } from './Connectors'
import { EarlierLogs } from './EarlierLogs'
import { Log } from './Log'
import { StartLog } from './StartLog'
import { Variants } from './Variants'
import { WayToPart } from './WayToPart'

/** Taking apart and putting together: the log, the tray, the connector map, the procedure of the model. */
export function OpenUp({ machine, assemblies }: { machine: Machine; assemblies: FittedAssembly[] }) {
  const opened = useQuery(openedUpQuery(machine.id))
  const wiring = useQuery(wiringQuery(machine.id))
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [ended, setEnded] = useState('')
  const error = opened.error ?? wiring.error
  if (error) return <Notice tone="stop" word="Not read.">{messageOf(error)}</Notice>
  if (!opened.data || !wiring.data) return null
  const { now, before, procedures, variants } = opened.data
  const boards = assemblies.map(({ title }) => title)
  return (
    <>
      {ended && <p role="status"><strong>Ended:</strong> {ended}.</p>}
      {now ? (
        <Log key={now.id} log={now} wiring={wiring.data} boards={boards} mayWrite={mayWrite} onEnded={setEnded} />
      ) : (
        <StartLog machine={machine} procedures={procedures} ahead={wiring.data.warnings} mayWrite={mayWrite}
          hasBefore={before.length > 0} onStarted={() => { setEnded('') }} />
      )}
      <WayToPart machineId={machine.id} />
      <Connectors machineId={machine.id} wiring={wiring.data} boards={boards} mayWrite={mayWrite} />
      <Variants variants={variants} />
      <EarlierLogs logs={before} procedures={procedures} model={machine.model ?? ''} mayWrite={mayWrite} />
    </>
  )
}
