import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Button as Trigger, Disclosure, DisclosurePanel } from 'react-aria-components'
import styled from 'styled-components'

import { facetsQuery, type MachineQuery } from '../../api/machines'
import { color, narrow, radius, space, target } from '../../theme'
import { Facet } from './Facet'
import { HoldsType } from './HoldsType'
import type { FacetName } from './machineFilters'

type Props = {
  query: MachineQuery
  onTick: (facet: FacetName, value: string) => void
  onType: (number: string) => void
}

/** What the list can be narrowed by, with how many machines each value would leave. */
export function Facets({ query, onTick, onType }: Props) {
  const counts = useQuery(facetsQuery(query)).data
  const [open, setOpen] = useState(() => !matchMedia('(max-width: 900px)').matches)
  const chosen = [...(query.place ?? []), ...(query.maker ?? []), ...(query.year ?? []), ...(query.stage ?? []),
    ...(query.statement ?? []), ...(query.type ? [query.type] : [])].length
  return (
    <Side aria-label="Narrow the list">
      <Disclosure isExpanded={open} onExpandedChange={setOpen}>
        <Fold slot="trigger">Narrow down{chosen > 0 ? ` (${String(chosen)} chosen)` : ''} {open ? '▴' : '▾'}</Fold>
        <DisclosurePanel>
          <Facet title="Take stock" values={counts?.stages} chosen={query.stage}
            onTick={(value) => { onTick('stage', value) }} />
          <Facet title="Statements" values={counts?.statements} chosen={query.statement}
            onTick={(value) => { onTick('statement', value) }} />
          <HoldsType query={query} onType={onType} />
          <Facet title="Place" values={counts?.places} chosen={query.place} none="no place"
            onTick={(value) => { onTick('place', value) }} />
          <Facet title="Maker" values={counts?.makers} chosen={query.maker} none="no maker"
            onTick={(value) => { onTick('maker', value) }} />
          <Facet title="Parts from year" values={counts?.years.filter(({ value }) => value)}
            chosen={query.year?.map(String)} onTick={(value) => { onTick('year', value) }} />
        </DisclosurePanel>
      </Disclosure>
    </Side>
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
