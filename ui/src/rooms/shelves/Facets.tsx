import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Button as Trigger, Disclosure, DisclosurePanel } from 'react-aria-components'
import styled from 'styled-components'

import type { Schemas } from '../../api/client'
import { facetsQuery, type MachineQuery } from '../../api/machines'
import { Button } from '../../kit/Button'
import { color, narrow, radius, space, target } from '../../theme'
import { HoldsType } from './HoldsType'
import type { FacetName } from './shelfQuery'

type Props = {
  query: MachineQuery
  onTick: (facet: FacetName, value: string) => void
  onType: (number: string) => void
}

/** What the list can be narrowed by, with how many machines each value would leave. */
export function Facets({ query, onTick, onType }: Props) {
  const counts = useQuery(facetsQuery(query)).data
  const [open, setOpen] = useState(() => !matchMedia('(max-width: 900px)').matches)
  const chosen = [...(query.place ?? []), ...(query.maker ?? []), ...(query.year ?? []), ...(query.stage ?? []), ...(query.type ? [query.type] : [])].length
  return (
    <Side aria-label="Narrow the list">
      <Disclosure isExpanded={open} onExpandedChange={setOpen}>
        <Fold slot="trigger">Narrow down{chosen > 0 ? ` (${String(chosen)} chosen)` : ''} {open ? '▴' : '▾'}</Fold>
        <DisclosurePanel>
          <Facet title="Take stock" values={counts?.stages} chosen={query.stage} onTick={(value) => { onTick('stage', value) }} />
          <HoldsType query={query} onType={onType} />
          <Facet title="Place" values={counts?.places} chosen={query.place} none="no place" onTick={(value) => { onTick('place', value) }} />
          <Facet title="Maker" values={counts?.makers} chosen={query.maker} none="no maker" onTick={(value) => { onTick('maker', value) }} />
          <Facet title="Parts from year" values={counts?.years.filter(({ value }) => value)} chosen={query.year?.map(String)} onTick={(value) => { onTick('year', value) }} />
        </DisclosurePanel>
      </Disclosure>
    </Side>
  )
}

type FacetProps = {
  title: string
  values: Schemas['FacetCount'][] | undefined
  chosen: string[] | undefined
  none?: string
  onTick: (value: string) => void
}

/** How many values a facet shows before more are asked for. */
const few = 6

function Facet({ title, values = [], chosen = [], none = 'not known', onTick }: FacetProps) {
  const [all, setAll] = useState(false)
  // What is ticked stays in sight, also where nothing is left of it.
  const gone = chosen.filter((value) => !values.some((known) => known.value === value)).map((value) => ({ value, count: 0 }))
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
        <Button $tone="quiet" $small onPress={() => { setAll(!all) }}>{all ? 'Show fewer' : `Show all ${String(listed.length)}`}</Button>
      )}
    </Group>
  )
}

const Side = styled.aside`
  ${narrow} { border-bottom: 1px solid ${color.line}; padding-bottom: ${space(1)}; }
`
const Fold = styled(Trigger)`
  min-height: ${target.main};
  padding: 0 ${space(1)};
  border: 1px solid ${color.edge};
  border-radius: ${radius};
  background: transparent;
  color: ${color.slate};
  cursor: pointer;
  &[data-focus-visible] { outline: 2px solid ${color.slate}; outline-offset: 2px; }
`
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
