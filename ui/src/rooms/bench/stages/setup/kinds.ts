import type { Factor } from '../../../../api/diagnosis'

export type Kind = NonNullable<Factor['kind']>

/** What a change between two trials can be. */
export const kinds: { value: Kind; text: string }[] = [{ value: 'part', text: 'a part swapped' },
  { value: 'setting', text: 'a setting' }, { value: 'cleaning', text: 'a cleaning' }, { value: 'environment', text: 'the room' },
  { value: 'other', text: 'something else' }]
