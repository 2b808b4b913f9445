import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'

import { type Link, peopleQuery, useInvite, useReset } from '../../api/people'
import { messageOf } from '../../api/problem'
import { moment } from '../../features/history/moment'
import { Button } from '../../kit/Button'
import { Choice, Field, FieldGrid } from '../../kit/Field'
import { ListTable, Scroll } from '../../kit/ListTable'
import { Notice } from '../../kit/Notice'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { usePanel } from '../../kit/usePanel'
import { color, font, space } from '../../theme'
import { Person } from './Person'
import { roles } from './roles'

/** The accounts, for curators: who may do what, who is invited, who is locked out. */
export function People() {
  const people = useQuery(peopleQuery)
  const reset = useReset()
  const [link, setLink] = useState<Link>()
  const [inviting, setInviting] = usePanel('invite', 'keepers')
  return (
    <Section aria-label="People">
      <h2>People</h2>
      {(people.error ?? reset.error) && <Notice tone="stop" word="Not done.">
        {messageOf(people.error ?? reset.error)}
      </Notice>}
      {link && <LinkToPassOn link={link} onClose={() => { setLink(undefined) }} />}
      {inviting ? (
        <Invite onDone={(made) => { setInviting(false); if (made) setLink(made) }} />
      ) : (
        <div><Button $tone="main" onPress={() => { setInviting(true) }}>Invite somebody</Button></div>
      )}
      <Scroll>
        <ListTable>
          <thead><tr><th>Name</th><th>Login</th><th>Role</th><th>State</th><th>Change</th></tr></thead>
          <tbody>
            {people.data?.map((account) => (
              <Person key={account.id} account={account}
                onReset={() => { reset.mutate(account.id, { onSuccess: setLink }) }} />
            ))}
          </tbody>
        </ListTable>
      </Scroll>
    </Section>
  )
}

function Invite({ onDone }: { onDone: (link?: Link) => void }) {
  const invite = useInvite()
  const [role, setRole] = useState(roles[1].value)
  return (
    <RecordForm
      keptAs="invitation"
      error={invite.error}
      isPending={invite.isPending}
      action="Invite"
      onSubmit={(form) => { invite.mutate({ login: textOf(form, 'login'), name: textOf(form, 'name'), role },
        { onSuccess: onDone }) }}
      onCancel={() => { onDone() }}
    >
      <FieldGrid>
        <Field label="Login" name="login" isRequired autoFocus maxLength={80} autoComplete="off" />
        <Field label="Name" name="name" maxLength={80} autoComplete="off" />
        <Choice label="Role" value={role} options={roles} onChange={setRole} />
      </FieldGrid>
    </RecordForm>
  )
}

/** The link is shown once: the server keeps only its hash. */
function LinkToPassOn({ link, onClose }: { link: Link; onClose: () => void }) {
  const address = `${window.location.origin}/welcome#${link.token}`
  return (
    <Notice tone="attention" word="Pass this on now; it is not shown again.">
      <p>Whoever opens it sets the password of {link.account.name} ({link.account.login}). It works once,
        until {moment(link.expires)}.</p>
      <Address tabIndex={0} aria-label="Link">{address}</Address>
      <Button $small onPress={onClose}>It is passed on</Button>
    </Notice>
  )
}

const Section = styled.section`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
`
const Address = styled.code`
  display: block;
  margin: ${space(1)} 0;
  padding: ${space(1)};
  background: ${color.sheet};
  font: 14px ${font.mono};
  overflow-wrap: anywhere;
  user-select: all;
`
