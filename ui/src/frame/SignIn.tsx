import { type FormEvent } from 'react'
import { Form } from 'react-aria-components'
import styled from 'styled-components'

import { messageOf } from '../api/problem'
import { useSignIn } from '../api/session'
import { Button } from '../kit/Button'
import { Field } from '../kit/Field'
import { Notice } from '../kit/Notice'
import { color, space } from '../theme'

/** Asks for login and password. */
export function SignIn() {
  return (
    <Middle>
      <MiddlePanel>
        <h1>Frugal Heron</h1>
        <p>The record of a collection of old computers: what is on each board, and what it amounts to.</p>
        <SignInForm />
      </MiddlePanel>
    </Middle>
  )
}

/** The fields of signing in, and what went wrong. */
export function SignInForm() {
  const signIn = useSignIn()
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const form = new FormData(event.currentTarget)
    signIn.mutate({ login: String(form.get('login')), password: String(form.get('password')) })
  }
  return (
    <MiddleFields onSubmit={submit}>
      <Field label="Login" name="login" autoComplete="username" autoFocus isRequired maxLength={80} />
      <Field label="Password" name="password" type="password" autoComplete="current-password" isRequired
        maxLength={200} />
      {signIn.error && <Notice tone="stop" word="Not signed in.">{messageOf(signIn.error)}</Notice>}
      <Button $tone="main" type="submit" isPending={signIn.isPending}>Sign in</Button>
    </MiddleFields>
  )
}

export const Middle = styled.main`
  min-height: 100vh;
  display: grid;
  place-items: center;
  padding: ${space(2)};
`
export const MiddleFields = styled(Form)`
  display: flex;
  flex-direction: column;
  gap: ${space(2)};
`
export const MiddlePanel = styled.div`
  display: flex;
  flex-direction: column;
  gap: ${space(2)};
  width: min(400px, 100%);
  padding: ${space(4)};
  border: 1px solid ${color.line};
  border-top: 3px solid ${color.slate};
  background: ${color.sheet};
  h1 { font-size: 28px; color: ${color.slate}; }
`
