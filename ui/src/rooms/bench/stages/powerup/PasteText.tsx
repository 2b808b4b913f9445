import { useQuery } from '@tanstack/react-query'

import { consoleReadingQuery, useKeepText } from '../../../../api/console'
import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { useKept } from '../../../../data/useDrafts'
import { thenGoOn } from '../../../../data/later'
import { ConsoleOutcome } from '../../../../features/console/ConsoleLines'
import { Field, FieldGrid } from '../../../../kit/Field'
import { Faint } from '../../../../kit/Page'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { useSettled } from '../../../../kit/useSettled'

/** Takes what stands on a screen, pasted or typed off, and tells meanwhile what it amounts to. */
export function PasteText({ machine, onDone }: { machine: Machine; onDone: () => void }) {
  const keep = useKeepText(machine.id)
  const [text, setText, forget] = useKept(`console text of ${String(machine.id)}`, '')
  const settled = useSettled(text, 300)
  const read = useQuery(consoleReadingQuery(machine.id, { text: settled }))
  return (
    <RecordForm keptAs={`console of ${String(machine.id)} typed off`} error={keep.error} isPending={keep.isPending}
      action="Save" onCancel={() => { forget(); onDone() }}
      onSubmit={(form) => {
        keep.mutate({ text, during: textOf(form, 'during'), on: textOf(form, 'on'), note: textOf(form, 'note') },
          thenGoOn(() => { forget(); onDone() }))
      }}>
      <Field label="What stands there" name="text" value={text} onChange={(next) => { setText(() => next) }} mono rows={6}
        isRequired hint="Line by line, as it stands on the screen" autoFocus />
      {text.trim() && read.data && <div role="status"><ConsoleOutcome said={read.data} />
        {read.data.claims.length > 0 && <p>It says: {read.data.claims.map(({ attribute, value, doubt }) =>
          `${doubt && 'perhaps '}${attribute.replaceAll('-', ' ')} ${value}`).join('; ')}.</p>}</div>}
      {text.trim() && read.error && <p role="status"><Faint>{messageOf(read.error)}</Faint></p>}
      <FieldGrid>
        <Field label="What the machine was doing" name="during" placeholder="self-test" />
        <Field label="On" name="on" mono placeholder="today" hint="YYYY-MM-DD" />
        <Field label="Note" name="note" />
      </FieldGrid>
    </RecordForm>
  )
}
