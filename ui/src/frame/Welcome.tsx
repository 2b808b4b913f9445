import { useQuery } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { useLocation, useNavigate } from 'react-router'

import { welcomeQuery } from '../api/people'
import { messageOf, ProblemError } from '../api/problem'
import { useTakeLink } from '../api/session'
import { Button } from '../kit/Button'
import { Field } from '../kit/Field'
import { Notice } from '../kit/Notice'
import { Middle, MiddleFields, MiddlePanel } from './SignIn'

/** Where a link from a curator leads: its person sets a password and is signed in. */
export default function Welcome() {
  // Behind the #, so that it is in no server's log.
  const token = useLocation().hash.slice(1)
  const navigate = useNavigate()
  const whose = useQuery({ ...welcomeQuery(token), enabled: token !== '' })
  const take = useTakeLink(token)
  const [differ, setDiffer] = useState('')
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const form = new FormData(event.currentTarget)
    const password = String(form.get('password'))
    const same = password === String(form.get('again'))
    setDiffer(same ? '' : 'The two passwords differ.')
    if (same) take.mutate(password, { onSuccess: () => void navigate('/start', { replace: true }) })
  }
  const fields = take.error instanceof ProblemError ? take.error.fields : {}
  return (
    <Middle>
      <MiddlePanel>
        <h1>Frugal Heron</h1>
        {(whose.error ?? (token === '' ? new Error('The address holds no link; open it as it was sent.') : null)) && (
          <Notice tone="stop" word="Not open.">
            {whose.error ? messageOf(whose.error) : 'The address holds no link; open it as it was sent.'}
          </Notice>
        )}
        {whose.data && (
          <MiddleFields onSubmit={submit} validationErrors={{ ...fields, ...(differ ? { again: differ } : {}) }}
            validationBehavior="aria">
            <p>Welcome, {whose.data.name}. Set the password that you will sign in with as <strong>
              {whose.data.login}
            </strong>.</p>
            <input type="hidden" name="username" autoComplete="username" value={whose.data.login} readOnly />
            <Field label="Password" name="password" type="password" autoComplete="new-password" autoFocus isRequired
              maxLength={200} hint="At least ten characters" />
            <Field label="Password once more" name="again" type="password" autoComplete="new-password" isRequired
              maxLength={200} />
            {take.error && !fields.password && <Notice tone="stop" word="Not set.">{messageOf(take.error)}</Notice>}
            <Button $tone="main" type="submit" isPending={take.isPending}>Set the password and sign in</Button>
          </MiddleFields>
        )}
      </MiddlePanel>
    </Middle>
  )
}
