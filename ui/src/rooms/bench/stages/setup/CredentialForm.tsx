import { useState } from 'react'

import type { Credential, CredentialFields } from '../../../../api/setup'
import { Choice, Field, FieldGrid, Tick } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

type Kind = NonNullable<CredentialFields['kind']>
type Props = { keptAs: string; base?: unknown; start?: Credential; error: Error | null; isPending: boolean
  onSubmit: (fields: CredentialFields, secret?: string) => void; onCancel: () => void }

/** What one signs on with. Its secret is kept on no device, and is not shown while it is edited. */
export function CredentialForm({ start, onSubmit, ...form }: Props) {
  const [kind, setKind] = useState<Kind>(start?.kind ?? 'sign-on')
  const [forTechnicians, setForTechnicians] = useState(start?.forTechnicians ?? false)
  return (
    <RecordForm {...form} action="Save" onSubmit={(data) => {
      const secret = String(data.get('secret') ?? '')
      onSubmit({ what: textOf(data, 'what'), kind, user: textOf(data, 'user'), note: textOf(data, 'note'), forTechnicians },
        start && secret === '' ? undefined : secret)
    }}>
      <FieldGrid>
        <Field label="What it is for" name="what" isRequired defaultValue={start?.what} placeholder="sign-on of the operator" />
        <Choice label="What it is" name="kind" value={kind} onChange={setKind} options={[
          { value: 'sign-on', text: 'a sign-on' }, { value: 'licence key', text: 'a licence key' }, { value: 'other', text: 'other' }]} />
        <Field label="Name that goes with it" name="user" mono defaultValue={start?.user} autoComplete="off" />
        <Field label="What is typed" name="secret" type="password" mono autoComplete="new-password" isRequired={!start}
          hint={start ? 'Empty leaves it as it is' : 'Kept neither on this device nor in the history'} />
      </FieldGrid>
      <Tick label="Technicians may look at it, too" isOn={forTechnicians} onChange={setForTechnicians} />
      <Field label="Note" name="note" rows={2} defaultValue={start?.note} />
    </RecordForm>
  )
}
