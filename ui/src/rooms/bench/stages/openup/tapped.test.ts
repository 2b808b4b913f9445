import { expect, test } from 'vitest'

import { stepOf, tappedOf } from './tapped'

test('a step survives the form', () => {
  const step = {
    off: 'Lid', tabs: ['front left', 'rear, brittle'], connectors: ['J5'],
      differs: [{ subject: 'battery', value: 'in a holder: clip' }], note: 'lift it', special: true,
    needs: ['Fan', 'Bay'], frees: ['BT1'], look: ['below BT1'], minutes: 10,
    fasteners: [{ count: 4, kind: 'M3 pan', lengthMm: 8, washer: '', tool: 'PH1', keeping: 'cell' as const, cell: 'A1',
      pattern: [] }],
  }
  expect(stepOf(tappedOf(step, [3]))).toEqual(step)
  expect(tappedOf(step, [3]).pictures).toEqual([3])
})

test('what is typed loosely is read', () => {
  const tapped = { ...tappedOf({}, []), off: ' Drive ', unplugged: ['J5'], more: 'J6,, J7 ', tabs: ' ; clip;',
    differs: 'rails: riveted; odd', note: ' mind it ' }
  expect(stepOf(tapped)).toEqual({ off: 'Drive', fasteners: [], tabs: ['clip'], connectors: ['J5', 'J6', 'J7'],
    differs: [{ subject: 'rails', value: 'riveted' }, { subject: 'odd', value: '' }], note: 'mind it', special: false,
    needs: [], frees: [], look: [], minutes: 0 })
})
