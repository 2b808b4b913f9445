import { useState } from 'react'

import type { Schemas } from '../../../../api/client'
import type { MemoryRulesFields } from '../../../../api/setup'
import { Button, Buttons } from '../../../../kit/Button'
import { Field } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

type Props = { keptAs: string; base?: unknown; start: MemoryRulesFields; offered: Schemas['OfferedMemoryRules'][]
  error: Error | null; isPending: boolean; onSubmit: (fields: MemoryRulesFields) => void; onCancel: () => void }

/** Which modules a machine takes, as text. What others of the model have can be taken over. */
export function MemoryRulesForm({ start, offered, onSubmit, ...form }: Props) {
  const [rules, setRules] = useState(start.rules)
  return (
    <RecordForm {...form} action="Save" onSubmit={(data) => { onSubmit({ rules, note: textOf(data, 'note') }) }}>
      {offered.length > 0 && <Buttons>{offered.map((one) => <Button key={one.accession} $small
        onPress={() => { setRules(one.rules) }}>As in {one.accession}</Button>)}</Buttons>}
      <Field label="Rules" name="rules" rows={7} mono value={rules} onChange={setRules}
        placeholder={'bank 0 | M1-M4\nbank 1 | M5-M8 | after 0\nsizes 256Kx9 1Mx9\nrule full\nrule same size\nmost 100 ns'}
        hint="A line each: bank with its sockets as the sheets call them, sizes, rule full, rule same size, rule parity, most 100 ns, most 16 MB, depth 1M, or allowed 0 = 1Mx9, 1 = empty | JP3 at 2-3" />
      <Field label="Note" name="note" rows={2} defaultValue={start.note} placeholder="from the technical manual, page 2-7" />
    </RecordForm>
  )
}
