import { useState } from 'react'

import { type ListedAccount, useChangeAccount } from '../../api/people'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { Button, Buttons } from '../../kit/Button'
import { Choice, Field } from '../../kit/Field'
import { Notice } from '../../kit/Notice'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { roles } from './roles'

/** One account, with what a curator can do about it. */
export function Person({ account, onReset }: { account: ListedAccount; onReset: () => void }) {
  const isOwn = useAccount()?.id === account.id
  const change = useChangeAccount(account.id)
  const [editing, setEditing] = useState(false)
  const { name, role, version } = account
  const state = account.disabled ? 'disabled: cannot sign in' : account.invited ? 'invited, no password set yet'
    : 'can sign in'
  if (editing) {
    return <tr><td colSpan={5}><Edit account={account} isOwn={isOwn} onDone={() => { setEditing(false) }} /></td></tr>
  }
  return (
    <tr>
      <td>{name}</td>
      <td>{account.login}</td>
      <td>{role}</td>
      <td>{state}{isOwn && ', this is you'}</td>
      <td>
        <Buttons>
          <Button $small aria-label={`Edit ${name}`} onPress={() => { setEditing(true) }}>Edit</Button>
          {!account.disabled
            && <Button $small aria-label={account.invited ? `New link for ${name}` : `Reset the password of ${name}`}
              onPress={onReset}>{account.invited ? 'New link' : 'Reset the password'}</Button>}
          {!isOwn && (
            <Button $small isPending={change.isPending}
              aria-label={account.disabled ? `Let in again: ${name}` : `Disable ${name}`}
                onPress={() => { change.mutate({ name, role, disabled: !account.disabled, version }) }}>
              {account.disabled ? 'Let in again' : 'Disable'}
            </Button>
          )}
        </Buttons>
        {change.error && <Notice tone="stop" word="Not changed.">{messageOf(change.error)}</Notice>}
      </td>
    </tr>
  )
}

function Edit({ account, isOwn, onDone }: { account: ListedAccount; isOwn: boolean; onDone: () => void }) {
  const change = useChangeAccount(account.id)
  const [role, setRole] = useState(account.role)
  return (
    <RecordForm
      keptAs={`account ${String(account.id)}`}
      error={change.error}
      isPending={change.isPending}
      action="Save"
      onSubmit={(form) => { change.mutate({ name: textOf(form, 'name'), role, disabled: account.disabled,
        version: account.version }, { onSuccess: onDone }) }}
      onCancel={onDone}
    >
      <Field label={`Name of ${account.login}`} name="name" defaultValue={account.name} autoFocus maxLength={80} />
      {!isOwn && <Choice label={`Role of ${account.login}`} value={role} options={roles} onChange={setRole} />}
    </RecordForm>
  )
}
