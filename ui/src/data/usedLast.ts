import { forgetLiked, like, liked } from './liked'

/** Where somebody went by the line last: it comes first when they go there again. */
export type Used = { key: string; text: string; more?: string; to: string }

const most = 12
const name = 'used last'

const isUsed = (value: unknown): value is Used[] => Array.isArray(value) && value.every((one: unknown) =>
  typeof one === 'object' && one !== null && 'key' in one && 'to' in one && typeof one.to === 'string'
  && one.to.startsWith('/'))

export const usedLast = () => liked<Used[]>(name, [], isUsed)

export function noteUsed(used: Used) {
  like(name, [used, ...usedLast().filter(({ to }) => to !== used.to)].slice(0, most))
}

/** Names of machines stand in it: at sign-out it goes. */
export const forgetUsed = () => { forgetLiked(name) }
