import styled from 'styled-components'

import type { Fastener } from '../../../../api/openup'
import { Button, Buttons } from '../../../../kit/Button'
import { Choice, Field } from '../../../../kit/Field'
import { color, space } from '../../../../theme'
import { Pattern } from './Pattern'

const ways = [{ value: 'cell', text: 'in the tray' }, { value: 'hole', text: 'left in their holes' },
  { value: 'laid', text: 'laid out as they came' }] as const
const shapes = ['row', 'two rows', 'ring'] as const

/** Equal screws, clips or nuts of a step, and how they are kept. */
export function FastenerFields({ n, fastener, onChange, onDrop }: { n: number; fastener: Fastener;
  onChange: (next: Fastener) => void; onDrop: () => void }) {
  const put = (changed: Partial<Fastener>) => { onChange({ ...fastener, ...changed }) }
  const pattern = fastener.pattern ?? []
  return (
    <Group aria-label={`Fasteners ${String(n)}`}>
      <legend>Fasteners {n}</legend>
      <Row>
        <Field label="How many" value={String(fastener.count)}
          onChange={(text) => { put({ count: Number(text.replace(/\D/g, '')) || 0, pattern: [] }) }}
            inputMode="numeric" />
        <Field label="What" value={fastener.kind} onChange={(kind) => { put({ kind }) }} list="fastener-kinds" />
        <Field label="Length, mm" value={fastener.lengthMm ? String(fastener.lengthMm) : ''}
          onChange={(text) => { put({ lengthMm: Number(text.replace(',', '.')) || 0 }) }} inputMode="decimal" />
        <Field label="Washer" value={fastener.washer ?? ''} onChange={(washer) => { put({ washer }) }}
          placeholder="spring" />
        <Field label="Tool" value={fastener.tool ?? ''} onChange={(tool) => { put({ tool }) }} placeholder="PH1" />
      </Row>
      <datalist id="fastener-kinds">
        {['M3 pan', 'M2.5 pan', 'M4 countersunk', 'self-tapping', 'hex standoff', 'clip', 'plastic rivet',
          'nut M3'].map((kind) => <option key={kind} value={kind} />)}
      </datalist>
      <Wide>
        <Choice label="Kept" value={fastener.keeping} options={[...ways]} onChange={(keeping) => { put({ keeping }) }} />
        {fastener.keeping === 'cell' && <Field label="Cell" value={fastener.cell ?? ''}
          onChange={(cell) => { put({ cell: cell.toUpperCase() }) }} mono />}
        {fastener.keeping === 'laid' && <Choice label="As a" value={fastener.shape ?? 'row'}
          options={shapes.map((value) => ({ value, text: value }))}
            onChange={(shape) => { put({ shape, pattern: [] }) }} />}
      </Wide>
      {fastener.keeping === 'laid' && pattern.length > 0 && <Pattern points={pattern}
        onMove={(moved) => { put({ pattern: moved }) }} />}
      <Buttons><Button $tone="quiet" aria-label={`Take these out, fasteners ${String(n)}`} onPress={onDrop}>
        Take these out
      </Button></Buttons>
    </Group>
  )
}

const Group = styled.fieldset`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  padding: ${space(1)};
  border: 1px solid ${color.line};
`
const Row = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 104px), 1fr));
  gap: ${space(1)};
  align-items: end;
`
const Wide = styled(Row)`
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 150px), 1fr));
`
