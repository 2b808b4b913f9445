import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type Meeting, meetingsQuery, type RecordRef, useDecideMeeting } from '../api/meetings'
import { useAccount } from '../api/session'
import { Button, Buttons } from '../kit/Button'
import { Field } from '../kit/Field'
import { Notice } from '../kit/Notice'
import { Faint } from '../kit/Page'
import { RecordForm, textOf } from '../kit/RecordForm'
import { font } from '../theme'

type Props = { of: RecordRef; meetings: Meeting[] }

/** Identifiers that stand on two records: is this the same thing? */
export function Meetings({ of, meetings }: Props) {
  return <>{meetings.map((meeting) =>
    <One key={[meeting.key, meeting.other.kind, meeting.other.id].join(' ')} of={of} meeting={meeting} />)}</>
}

/** Reads them first. */
export function MeetingsOf({ of }: { of: RecordRef }) {
  const meetings = useQuery(meetingsQuery(of))
  return meetings.data ? <Meetings of={of} meetings={meetings.data} /> : null
}

const pages: Record<RecordRef['kind'], (id: string) => string> = {
  machine: (id) => `/bench/${id}/look-over`,
  assembly: (id) => `/stores/${id}`,
  lot: (id) => `/shelves/arrivals/${id}`,
}
const places: Record<RecordRef['kind'], string> = { machine: '', assembly: ' in the stores',
  lot: ' among the arrivals' }

function One({ of, meeting }: { of: RecordRef; meeting: Meeting }) {
  const mayDecide = useAccount()?.mayKeepTheRecord ?? false
  const [decision, setDecision] = useState<'linked' | 'dismissed'>()
  const decide = useDecideMeeting()
  const other = <><Link to={pages[meeting.other.kind](String(meeting.other.id))}>{meeting.name}</Link>
    {places[meeting.other.kind]}</>
  if (meeting.decision !== '' && !decision) {
    return (
      <p>
        <Value>{meeting.value}</Value> stands on {other},
          too: {meeting.decision}, {meeting.reason} <Faint>({meeting.by})</Faint>{' '}
        {mayDecide && <Button $tone="quiet" onPress={() => { setDecision('linked') }}>Decide anew</Button>}
      </p>
    )
  }
  return (
    <Notice tone="attention" word="Met twice.">
      <Value>{meeting.value}</Value> ({meeting.source}) stands on {other},
        too{meeting.there !== meeting.name && ` (${meeting.there})`}. {question(of, meeting.other)}
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
            decide.mutate({ key: meeting.key, one: of, other: meeting.other, decision,
              reason: textOf(form, 'reason') }, { onSuccess: () => { setDecision(undefined) } })
          }}
          onCancel={() => { setDecision(undefined) }}
        >
          <Field label={decision === 'linked' ? 'How they belong together' : 'Why it means nothing'} name="reason"
            isRequired autoFocus />
        </RecordForm>
      )}
    </Notice>
  )
}

function question(one: RecordRef, other: RecordRef) {
  if (one.kind === 'machine' && other.kind === 'machine')
    return 'Is this the same machine, or do the two belong together?'
  return 'Is this the same thing, or do the two belong together?'
}

const Value = styled.span`
  font-family: ${font.mono};
`
