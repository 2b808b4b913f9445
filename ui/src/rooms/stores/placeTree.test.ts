import { expect, test } from 'vitest'

import { placeTree } from './placeTree'

test('places lie in each other, with what is in them', () => {
  const rows = placeTree([
    { name: 'Rope walk, store, shelf B', climate: '', machines: 0, assemblies: 2, parts: 2 },
    { name: 'Rope walk, bay 2', climate: '', machines: 3, assemblies: 0, parts: 0 },
    { name: 'Entrance hall', climate: '', machines: 1, assemblies: 0, parts: 0 },
  ])
  expect(rows.map(({ name, depth, machines, assemblies }) => [name, depth, machines, assemblies])).toEqual([
    ['Entrance hall', 0, 1, 0], ['Rope walk', 0, 3, 2], ['bay 2', 1, 3, 0], ['store', 1, 0, 2], ['shelf B', 2, 0, 2],
  ])
})

test('a climate is that of the place itself; those around and in it say their own', () => {
  const rows = placeTree([{ name: 'Rope walk', climate: 'damp', machines: 0, assemblies: 0, parts: 0 },
    { name: 'Rope walk, bay 2', climate: '', machines: 1, assemblies: 0, parts: 0 }, { name: 'Loft, box', climate: 'hot',
      machines: 0, assemblies: 1, parts: 1 }])
  expect(rows.map(({ path, climate }) => [path, climate])).toEqual([['Loft', ''], ['Loft, box', 'hot'],
    ['Rope walk', 'damp'], ['Rope walk, bay 2', '']])
})
