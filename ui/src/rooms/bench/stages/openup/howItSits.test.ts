import { expect, test } from 'vitest'

import type { Wiring } from '../../../../api/openup'
import { howItSits } from './howItSits'

test('how a plug sits is said where it is ticked', () => {
  const connectors = [
    { name: 'J5', toBoard: 'Disk card', toPlace: 'J5', pin1: 'red edge to the rear', key: 'notch', colours: '',
      free: { socket: [1, 2], plug: [] } },
    { name: 'P9', toBoard: '', pin1: '', key: '', colours: '', free: { socket: [], plug: [] } },
  ]
  const wiring = { connectors } as unknown as Wiring
  expect(howItSits(wiring, 'j5'))
    .toBe(' to Disk card J5; pin 1: red edge to the rear; key: notch; 2 pins of the socket stay free')
  expect(howItSits(wiring, 'P9')).toBe(' how it sits is not written down')
  expect(howItSits(wiring, 'X1')).toBe('')
})
