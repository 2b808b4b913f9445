import type { MachineQuery } from '../../api/machines'

/** What the list can be narrowed by, by ticking values. */
export type FacetName = 'place' | 'maker' | 'year' | 'stage' | 'statement'
export type Sort = NonNullable<MachineQuery['sort']>

const sorts: Sort[] = ['accession', 'name', 'maker', 'place', 'year', 'chips', 'unidentified', 'ram', 'rom']
const stages = ['untouched', 'in hand', 'needs attention', 'settled'] as const
const statements = ['disputed', 'not disputed'] as const

/** Reads filters and order from the address, so that a list can be kept, sent and gone back to. */
export function readQuery(parameters: URLSearchParams): MachineQuery {
  return {
    search: parameters.get('search') ?? undefined,
    place: many(parameters.getAll('place')),
    maker: many(parameters.getAll('maker')),
    year: many(parameters.getAll('year').map(Number).filter(Number.isInteger)),
    stage: many(parameters.getAll('stage').filter((value): value is (typeof stages)[number] =>
      stages.some((stage) => stage === value))),
    statement: many(parameters.getAll('statement').filter((value): value is (typeof statements)[number] =>
      statements.some((one) => one === value))),
    type: parameters.get('type') ?? undefined,
    sort: sorts.find((sort) => sort === parameters.get('sort')),
    down: parameters.get('down') === 'true' || undefined,
  }
}

const many = <Value>(values: Value[]) => (values.length > 0 ? values : undefined)

/** Ticks a value of a facet, or takes the tick off. */
export function ticked(parameters: URLSearchParams, facet: FacetName, value: string): URLSearchParams {
  const next = new URLSearchParams(parameters)
  const others = next.getAll(facet).filter((other) => other !== value)
  const was = next.getAll(facet).length > others.length
  next.delete(facet)
  for (const other of others) next.append(facet, other)
  if (!was) next.append(facet, value)
  return next
}

/** Sets a parameter, or takes it out when there is nothing to set. */
export function withValue(parameters: URLSearchParams, name: string, value: string): URLSearchParams {
  const next = new URLSearchParams(parameters)
  if (value) next.set(name, value)
  else next.delete(name)
  return next
}

/** Sorts by a column; the one it is sorted by already, the other way round. */
export function sorted(parameters: URLSearchParams, sort: Sort): URLSearchParams {
  const { sort: now = 'accession', down } = readQuery(parameters)
  return withValue(withValue(parameters, 'sort', sort), 'down', now === sort && !down ? 'true' : '')
}
