import { useState } from 'react'

import { useAccount, useChangePassword } from '../../api/session'
import { Button } from '../../kit/Button'
import { Field, FieldGrid } from '../../kit/Field'
import { Page, Title } from '../../kit/Page'
import { RecordForm } from '../../kit/RecordForm'
import { usePanel } from '../../kit/usePanel'
import { CalendarAddress } from './CalendarAddress'
import { CollectionSettings } from './CollectionSettings'
import { People } from './People'
import { Sessions } from './Sessions'

/** What belongs to the account that is signed in. */
export default function Account() {
  const account = useAccount()
  const change = useChangePassword()
  const [differ, setDiffer] = useState<Record<string, string>>({})
  const [changing, setChanging] = usePanel('password', 'all')

  const submit = (form: FormData) => {
    const password = (name: string) => String(form.get(name) ?? '')
    const same = password('wanted') === password('again')
    setDiffer(same ? {} : { again: 'The two new passwords differ.' })
    if (same) {
      change.mutate({ current: password('current'), wanted: password('wanted') },
        { onSuccess: () => { setChanging(false) } })
    }
  }
  return (
    <Page>
      <Title>{account?.name}</Title>
      <p>You are signed in as {account?.role}.</p>
      {change.isSuccess && !changing && <p role="status">Your password is changed. Your other sessions have ended.</p>}
      {changing ? (
        <RecordForm keptAs={null}
          error={change.error} wrong={differ} isPending={change.isPending} action="Change the password"
          onSubmit={submit} onCancel={() => { setChanging(false) }}>
          <FieldGrid>
            <Field label="Current password" name="current" type="password" autoComplete="current-password" isRequired
              autoFocus maxLength={200} />
            <Field label="New password" name="wanted" type="password" autoComplete="new-password" isRequired
              maxLength={200} hint="At least ten characters" />
            <Field label="New password once more" name="again" type="password" autoComplete="new-password" isRequired
              maxLength={200} />
          </FieldGrid>
        </RecordForm>
      ) : (
        <div><Button onPress={() => { setChanging(true) }}>Change your password</Button></div>
      )}
      {account?.mayKeepTheRecord && <CollectionSettings />}
      {account?.mayKeepTheRecord && <People />}
      <CalendarAddress />
      <Sessions />
    </Page>
  )
}
