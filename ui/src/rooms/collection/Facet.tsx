import { useState } from 'react'
import styled from 'styled-components'

import type { Schemas } from '../../api/client'
import { Button } from '../../kit/Button'
import { color, space, target } from '../../theme'

type FacetProps = {
  title: string
  values: Schemas['FacetCount'][] | undefined
  chosen: string[] | undefined
  none?: string
  onTick: (value: string) => void
}

/** How many values a facet shows before more are asked for. */
const few = 6

/**
 * One thing that the list can be narrowed by: its values, each with a box to tick and how many machines it would leave.
 */
export function Facet({ title, values = [], chosen = [], none = 'not known', onTick }: FacetProps) {
  const [all, setAll] = useState(false)
  // What is ticked stays in sight, also where nothing is left of it.
  const gone = chosen.filter((value) =>
    !values.some((known) => known.value === value)).map((value) => ({ value, count: 0 }))
  const listed = [...values, ...gone]
  if (listed.length === 0) return null
  const shown = all ? listed : listed.filter(({ value }, i) => i < few || chosen.includes(value))
  return (
    <Group>
      <legend>{title}</legend>
      {shown.map(({ value, count }) => (
        <Value key={value}>
          <input type="checkbox" checked={chosen.includes(value)} onChange={() => { onTick(value) }} />
          <span>{value || none}</span>
          <Count>{count.toLocaleString('en')}</Count>
        </Value>
      ))}
      {(listed.length > shown.length || all) && listed.length > few && (
        <Button $tone="quiet" $small onPress={() => { setAll(!all) }}>
          {all ? 'Show fewer' : `Show all ${String(listed.length)}`}
        </Button>
      )}
    </Group>
  )
}

export const Group = styled.fieldset`
  min-width: 0;
  margin: ${space(1)} 0 0;
  padding: 0;
  border: none;
  legend { padding: 0; color: ${color.faint}; font-size: 14px; font-weight: 600; }
`
export const Value = styled.label`
  display: flex;
  align-items: center;
  gap: ${space(1)};
  min-height: ${target.small};
  cursor: pointer;
  overflow-wrap: anywhere;
  line-height: 1.25;
  input { width: 18px; height: 18px; margin: 0; flex: none; accent-color: ${color.slate}; }
  &:hover { background: ${color.slateGround}; }
`
export const Count = styled.span`
  margin-left: auto;
  color: ${color.faint};
  font-size: 14px;
  font-variant-numeric: tabular-nums;
`
