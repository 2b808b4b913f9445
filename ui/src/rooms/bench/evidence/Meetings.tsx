import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type Meeting, useDecideMeeting } from '../../../api/dossier'
import { useAccount } from '../../../api/session'
import { Button, Buttons } from '../../../kit/Button'
import { Field } from '../../../kit/Field'
import { Notice } from '../../../kit/Notice'
import { Faint } from '../../../kit/Page'
import { RecordForm, textOf } from '../../../kit/RecordForm'
import { font } from '../../../theme'

/** Identifiers that stand on two records: is this the same machine? */
export function Meetings({ machineId, meetings }: { machineId: number; meetings: Meeting[] }) {
  return <>{meetings.map((meeting) => <One key={`${meeting.key} ${String(meeting.otherId)}`} machineId={machineId} meeting={meeting} />)}</>
}

function One({ machineId, meeting }: { machineId: number; meeting: Meeting }) {
  const mayDecide = useAccount()?.mayKeepTheRecord ?? false
  const [decision, setDecision] = useState<'linked' | 'dismissed'>()
  const decide = useDecideMeeting(machineId)
  const other = <Link to={`/bench/${String(meeting.otherId)}/look-over`}>{meeting.accession} {meeting.name}</Link>
  if (meeting.decision !== '' && !decision) {
    return (
      <p>
        <Value>{meeting.value}</Value> stands on {other}, too: {meeting.decision}, {meeting.reason} <Faint>({meeting.by})</Faint>{' '}
        {mayDecide && <Button $tone="quiet" onPress={() => { setDecision('linked') }}>Decide anew</Button>}
      </p>
    )
  }
  return (
    <Notice tone="attention" word="Met twice.">
      <Value>{meeting.value}</Value> ({meeting.source}) stands on {other}, too ({meeting.there}). Is this the same machine, or do the two belong together?
      {mayDecide && !decision && (
        <Buttons>
          <Button $small onPress={() => { setDecision('linked') }}>They belong together</Button>
          <Button $small onPress={() => { setDecision('dismissed') }}>It means nothing</Button>
        </Buttons>
      )}
      {decision && (
        <RecordForm
          error={decide.error}
          isPending={decide.isPending}
          action={decision === 'linked' ? 'Link the two' : 'Dismiss it'}
          onSubmit={(form) => {
            decide.mutate({ key: meeting.key, otherId: meeting.otherId, decision, reason: textOf(form, 'reason') }, { onSuccess: () => { setDecision(undefined) } })
          }}
          onCancel={() => { setDecision(undefined) }}
        >
          <Field label={decision === 'linked' ? 'How they belong together' : 'Why it means nothing'} name="reason" isRequired autoFocus />
        </RecordForm>
      )}
    </Notice>
  )
}

const Value = styled.span`
  font-family: ${font.mono};
`
