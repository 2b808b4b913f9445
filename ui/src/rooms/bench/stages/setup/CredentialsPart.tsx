import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'
import { useState } from 'react'

import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { useAccount } from '../../../../api/session'
import { type Credential, credentialsQuery, useChangeCredential, usePutCredentialAway, useSeeCredential,
  useVoidCredential } from '../../../../api/setup'
import { Button, Buttons } from '../../../../kit/Button'
import { EditRecord } from '../../../../kit/EditRecord'
import { NotSaved } from '../../../../kit/NotSaved'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { usePanel } from '../../../../kit/usePanel'
import { color, font, space } from '../../../../theme'
import { CredentialForm } from './CredentialForm'

/** What one signs on with, and licence keys, for those who may see them; each look is kept in the history. */
export function CredentialsPart({ machine }: { machine: Machine }) {
  const told = useQuery(credentialsQuery(machine.id))
  const mayKeep = useAccount()?.role === 'curator'
  const [adding, setAdding] = usePanel('credential')
  const add = usePutCredentialAway(machine.id)
  const all = told.data?.credentials ?? []
  return (
    <Part title="Credentials" faint="Sign-ons and licence keys; each look at one is kept in the history"
      action={mayKeep && !adding && <Button $small onPress={() => { setAdding(true) }}>Put a credential away</Button>}>
      {told.error && <Notice tone="stop" word="Not read.">{messageOf(told.error)}</Notice>}
      {adding && <CredentialForm keptAs={`credential of ${String(machine.id)}`} error={add.error} isPending={add.isPending}
        onCancel={() => { setAdding(false) }} onSubmit={(fields, secret) => {
          add.mutate({ ...fields, secret: secret ?? '' }, { onSuccess: () => { setAdding(false) } })
        }} />}
      {told.data && all.length === 0 && !adding && <p><Faint>None is kept.</Faint></p>}
      {all.map((one) => <OneCredential key={one.id} credential={one} mayKeep={mayKeep} />)}
    </Part>
  )
}

function OneCredential({ credential, mayKeep }: { credential: Credential; mayKeep: boolean }) {
  const { id, what, kind, user, note, mayLook, forTechnicians } = credential
  const [editing, setEditing] = useState(false)
  const see = useSeeCredential(id)
  const change = useChangeCredential(id)
  const voiding = useVoidCredential()
  if (editing)
    return <EditRecord keptAs={`credential ${String(id)}`} record={credential} change={change}
      newerIn={(newer) => newer.credential} names={{ what: 'what it is for', user: 'name', note: 'note' }}
      onDone={() => { setEditing(false); see.reset() }}>
      {({ onSubmit, ...form }) => <CredentialForm {...form} start={credential} onSubmit={(fields, secret) => {
        onSubmit({ ...fields, secret })
      }} />}
    </EditRecord>
  return (
    <Framed aria-label={what}>
      <p><b>{what}</b> <Faint>{kind}{user && `, ${user}`}{forTechnicians ? '' : ', for curators'}</Faint></p>
      {note && <p>{note}</p>}
      {see.data && <p><Secret>{see.data.secret}</Secret></p>}
      <Buttons>
        {mayLook ? see.data ? <Button $small onPress={() => { see.reset() }}>Hide it again</Button>
          : <Button $small isPending={see.isPending} aria-label={`Look at ${what}`} onPress={() => { see.mutate() }}>Look at it</Button>
          : <Faint>A curator can look at it.</Faint>}
        {mayKeep && <>
          <Button $small $tone="quiet" aria-label={`Edit ${what}`} onPress={() => { setEditing(true) }}>Edit</Button>
          <Button $small $tone="quiet" aria-label={`Delete ${what}`} isPending={voiding.isPending}
            onPress={() => { voiding.mutate(credential) }}>Delete</Button>
        </>}
      </Buttons>
      <NotSaved error={see.error ?? voiding.error} />
    </Framed>
  )
}

const Framed = styled.article`
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding: ${space(1)} 0;
  border-bottom: 1px solid ${color.line};
`
const Secret = styled.code`
  padding: 4px ${space(1)};
  border: 1px solid ${color.edge};
  background: ${color.sheet};
  font: 16px ${font.mono};
  white-space: pre-wrap;
  overflow-wrap: anywhere;
`
