import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { unknownsQuery } from '../../api/unknowns'
import { Button } from '../../kit/Button'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { usePanel } from '../../kit/usePanel'
import { AskAbout, UnknownList } from './UnknownList'

/** The unknowns of a machine, or with 0 of the collection, and what was answered. */
export function Unknowns({ machineId }: { machineId: number }) {
  const unknowns = useQuery(unknownsQuery(machineId))
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [asking, setAsking] = usePanel('question')
  const [settled, setSettled] = useState('')
  const { open = [], answered = [], more } = unknowns.data ?? {}
  return (
    <Part
      title="Unknowns"
      faint={unknowns.data
        && `${String(open.length)} open${answered.length > 0 ? `, ${String(answered.length)} answered` : ''}`}
      action={<>{machineId > 0 && <Link to="/library/unknowns">of the collection</Link>}
        {mayWrite && <Button $small onPress={() => { setAsking(true) }}>Ask about something else</Button>}</>}
    >
      {asking && <AskAbout machineId={machineId || null} onDone={() => { setAsking(false) }} />}
      {unknowns.error && <Notice tone="stop" word="Not listed.">{messageOf(unknowns.error)}</Notice>}
      {unknowns.data && open.length === 0 && <p>Nothing is unknown here: every chip on the sheets has a type.</p>}
      {settled && <p role="status">{settled}</p>}
      <UnknownList open={open} onSettled={setSettled} />
      {more && <p>There are more; name these first.</p>}
      {answered.length > 0 && (
        <details>
          <summary>{answered.length} answered</summary>
          <ul>{answered.map((one) =>
            <li key={one.id}><strong>
              {one.subject}
            </strong>: {one.answer} <Faint>({one.source}, {one.answeredOn})</Faint></li>)}</ul>
        </details>
      )}
    </Part>
  )
}
