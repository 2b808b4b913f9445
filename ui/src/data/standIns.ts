/**
 * A photo that waits on this device has no number yet; what cites it meanwhile carries a stand-in: the number under
 * which it waits, below zero. When the photo is sent, the stand-in gives way to the number that the server gave it.
 */
const keptAs = 'heron numbers given'
const most = 200

export const standInFor = (waiting: number) => -waiting
/** Whether a number of a picture stands for one that waits here. */
export const isStandIn = (id: number) => id < 0

/** Fields in which a change cites pictures. */
const cites = /^(pictures?|pictureId|picturesBefore|picturesAfter|attachments?|attachmentId|portrait)$/

/** Notes the number that what waited under a number was given. */
export function noteGiven(waiting: number, id: number) {
  try {
    const before = Object.entries(given()).slice(1 - most)
    localStorage.setItem(keptAs, JSON.stringify({ ...Object.fromEntries(before), [standInFor(waiting)]: id }))
  } catch {
    // A browser that keeps nothing kept no photo either.
  }
}

function given(): Record<string, number> {
  try {
    return JSON.parse(localStorage.getItem(keptAs) ?? '{}') as Record<string, number>
  } catch {
    return {}
  }
}

/** The body of a change with the numbers that were given meanwhile, and whether some photo still waits. */
export function withGiven(body: string): { body: string; waits: boolean } {
  if (!/-\d/.test(body)) return { body, waits: false }
  let value: unknown
  try {
    value = JSON.parse(body)
  } catch {
    return { body, waits: false }
  }
  const numbers = given()
  let [waits, changed] = [false, false]
  const numberOf = (one: unknown) => {
    if (typeof one !== 'number' || !isStandIn(one)) return one
    const now = numbers[String(one)]
    if (now === undefined) waits = true
    else changed = true
    return now ?? one
  }
  const walk = (one: unknown): unknown => {
    if (Array.isArray(one)) return one.map(walk)
    if (!one || typeof one !== 'object') return one
    return Object.fromEntries(Object.entries(one).map(([name, inner]) => [name, !cites.test(name) ? walk(inner)
      : Array.isArray(inner) ? inner.map(numberOf) : numberOf(inner)]))
  }
  const walked = walk(value)
  return { body: changed ? JSON.stringify(walked) : body, waits }
}
