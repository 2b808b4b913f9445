import { expect, it } from 'vitest'

import { readQuery, sorted, ticked } from './machineFilters'

it('reads from the address what it wrote there', () => {
  const address = ticked(ticked(ticked(new URLSearchParams('search=tarn'), 'place', 'Loft'), 'place', ''), 'year',
    '1984')
  expect(readQuery(address)).toMatchObject({ search: 'tarn', place: ['Loft', ''], year: [1984] })
  expect(readQuery(ticked(address, 'place', 'Loft')).place).toEqual([''])
  expect(readQuery(new URLSearchParams('stage=lost&sort=colour&year=x'))).toEqual({})
})

it('turns the order round when the same column is chosen again', () => {
  const once = sorted(new URLSearchParams(), 'ram')
  expect(readQuery(once)).toMatchObject({ sort: 'ram', down: undefined })
  const twice = sorted(once, 'ram')
  expect(readQuery(twice)).toMatchObject({ sort: 'ram', down: true })
  expect(readQuery(sorted(twice, 'ram')).down).toBeUndefined()
  expect(readQuery(sorted(twice, 'name'))).toMatchObject({ sort: 'name', down: undefined })
  expect(readQuery(sorted(new URLSearchParams(), 'accession')).down).toBe(true) // as it is sorted unless said otherwise
})
