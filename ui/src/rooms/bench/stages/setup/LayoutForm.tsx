import { useState } from 'react'

import type { LayoutFields, Memory } from '../../../../api/diagnosis'
import { Button, Buttons } from '../../../../kit/Button'
import { Field } from '../../../../kit/Field'
import { RecordForm, textOf } from '../../../../kit/RecordForm'

type Props = { keptAs: string; base?: unknown; start: LayoutFields; offered: Memory['offered']; error: Error | null
  isPending: boolean; onSubmit: (fields: LayoutFields) => void; onCancel: () => void }

/** How memory is laid out, as text: a bank a line. What others of the model have can be taken over. */
export function LayoutForm({ start, offered, onSubmit, ...form }: Props) {
  const [layout, setLayout] = useState(start.layout)
  const [syndromes, setSyndromes] = useState(start.syndromes ?? '')
  return (
    <RecordForm {...form} action="Save" onSubmit={(data) => { onSubmit({ layout, syndromes, note: textOf(data, 'note') }) }}>
      {offered.length > 0 && <Buttons>{offered.map((one) => <Button key={one.accession} $small onPress={() => {
        setLayout(one.layout)
        setSyndromes(one.syndromes ?? '')
      }}>As in {one.accession}</Button>)}</Buttons>}
      <Field label="Layout" name="layout" rows={5} mono value={layout} onChange={setLayout}
        placeholder={'low  0-FFFF      U40-U47\nhigh 10000-1FFFF U50x4 U51x4 8:U58'}
        hint="A bank a line: its name, its addresses in hexadecimal, its chips from bit 0 up; x4 where a chip is four bits wide, 8: to go on from bit 8" />
      <details open={syndromes !== ''}>
        <summary>Error correction</summary>
        <Field label="Syndromes" name="syndromes" rows={3} mono value={syndromes} onChange={setSyndromes} placeholder="0b 3"
          hint="A line each: the syndrome in hexadecimal, and the bit that it means" />
      </details>
      <Field label="Note" name="note" rows={2} defaultValue={start.note} placeholder="from the technical manual, page 4-12" />
    </RecordForm>
  )
}
