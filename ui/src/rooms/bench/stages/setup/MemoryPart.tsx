import { useQuery } from '@tanstack/react-query'
import styled from 'styled-components'

import { type Memory, memoryQuery, useLayOutMemory } from '../../../../api/diagnosis'
import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { Button } from '../../../../kit/Button'
import { EditRecord } from '../../../../kit/EditRecord'
import { Mark } from '../../../../kit/Mark'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { usePanel } from '../../../../kit/usePanel'
import { color, font, space } from '../../../../theme'
import { LayoutForm } from './LayoutForm'
import { Suspects } from './Suspects'

/** How the memory is laid out, and to which chips the lines of its tests lead. */
export function MemoryPart({ machine, mayWrite }: { machine: Machine; mayWrite: boolean }) {
  const told = useQuery(memoryQuery(machine.id))
  const [editing, setEditing] = usePanel('memory')
  const change = useLayOutMemory(machine.id)
  const { layout, tests = [], again = [], offered = [] } = told.data ?? {}
  const isLaidOut = Boolean(layout?.layout)
  return (
    <Part title="Memory" faint="Which chip is that error"
      action={mayWrite && layout && !editing && <Button $small onPress={() => { setEditing(true) }}>
        {isLaidOut ? 'Change the layout' : 'Lay out its memory'}</Button>}>
      {told.error && <Notice tone="stop" word="Not read.">{messageOf(told.error)}</Notice>}
      {editing && layout && <EditRecord keptAs={`memory of ${String(machine.id)}`} record={layout} change={change}
        newerIn={(newer) => newer.layout} names={names} onDone={() => { setEditing(false) }}>
        {(form) => <LayoutForm start={layout} offered={offered} {...form} />}
      </EditRecord>}
      {layout && isLaidOut && !editing && <Lines aria-label="Layout">{layout.layout}</Lines>}
      {layout?.note && !editing && <p>{layout.note}</p>}
      {layout && !isLaidOut && !editing && <p><Faint>Nobody wrote down yet which chips hold which addresses.
        {tests.length > 0 ? ' With that, the lines of its memory test lead to a chip.'
          : ' Then a memory test that was heard or pasted under Power up leads to a chip.'}</Faint></p>}
      {again.map((one) => <p key={one.why}><Mark kind="attention" /> {one.why} <Faint>({one.days.join(', ')})</Faint></p>)}
      {tests.map((test) => <Suspects key={test.captureId} test={test} machineId={machine.id} isLaidOut={isLaidOut} />)}
    </Part>
  )
}

const names: Partial<Record<keyof Memory['layout'], string>> = { layout: 'layout', syndromes: 'syndromes', note: 'note' }

const Lines = styled.pre`
  padding: ${space(1)};
  overflow: auto;
  background: ${color.sheet};
  border: 1px solid ${color.line};
  font: 14px/22px ${font.mono};
`
