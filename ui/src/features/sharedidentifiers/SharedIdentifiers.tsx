import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type SharedIdentifier, sharedIdentifiersQuery, type RecordRef,
  useDecideSharedIdentifier } from '../../api/sharedIdentifiers'
import { useAccount } from '../../api/session'
import { Button, Buttons } from '../../kit/Button'
import { Field } from '../../kit/Field'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { font } from '../../theme'

type Props = { of: RecordRef; sharedIdentifiers: SharedIdentifier[] }

/** Identifiers that stand on two records: is this the same thing? */
export function SharedIdentifiers({ of, sharedIdentifiers }: Props) {
  return <>{sharedIdentifiers.map((sharedIdentifier) =>
    <One key={[sharedIdentifier.key, sharedIdentifier.other.kind, sharedIdentifier.other.id].join(' ')} of={of}
      sharedIdentifier={sharedIdentifier} />)}</>
}

/** Reads them first. */
export function SharedIdentifiersOf({ of }: { of: RecordRef }) {
  const sharedIdentifiers = useQuery(sharedIdentifiersQuery(of))
  return sharedIdentifiers.data ? <SharedIdentifiers of={of} sharedIdentifiers={sharedIdentifiers.data} /> : null
}

const pages: Record<RecordRef['kind'], (id: string) => string> = {
  machine: (id) => `/bench/${id}/look-over`,
  assembly: (id) => `/stores/${id}`,
  lot: (id) => `/collection/arrivals/${id}`,
}
const places: Record<RecordRef['kind'], string> = { machine: '', assembly: ' in the stores',
  lot: ' among the arrivals' }

function One({ of, sharedIdentifier }: { of: RecordRef; sharedIdentifier: SharedIdentifier }) {
  const mayDecide = useAccount()?.mayKeepTheRecord ?? false
  const [decision, setDecision] = useState<'linked' | 'dismissed'>()
  const decide = useDecideSharedIdentifier()
  const other = <><Link to={pages[sharedIdentifier.other.kind](String(sharedIdentifier.other.id))}>
    {sharedIdentifier.name}
  </Link>
    {places[sharedIdentifier.other.kind]}</>
  if (sharedIdentifier.decision !== '' && !decision) {
    return (
      <p>
        <Value>{sharedIdentifier.value}</Value> stands on {other},
          too: {sharedIdentifier.decision}, {sharedIdentifier.reason} <Faint>({sharedIdentifier.by})</Faint>{' '}
        {mayDecide && <Button $tone="quiet" onPress={() => { setDecision('linked') }}>Decide anew</Button>}
      </p>
    )
  }
  return (
    <Notice tone="attention" word="Met twice.">
      <Value>{sharedIdentifier.value}</Value> ({sharedIdentifier.source}) stands on {other},
        too{sharedIdentifier.there !== sharedIdentifier.name && ` (${sharedIdentifier.there})`}. {question(of,
          sharedIdentifier.other)}
      {mayDecide && !decision && (
        <Buttons>
          <Button $small onPress={() => { setDecision('linked') }}>They belong together</Button>
          <Button $small onPress={() => { setDecision('dismissed') }}>It means nothing</Button>
        </Buttons>
      )}
      {decision && (
        <RecordForm
          keptAs={`shared identifier ${sharedIdentifier.key}`}
          error={decide.error}
          isPending={decide.isPending}
          action={decision === 'linked' ? 'Link the two' : 'Dismiss it'}
          onSubmit={(form) => {
            decide.mutate({ key: sharedIdentifier.key, one: of, other: sharedIdentifier.other, decision,
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
