/**
 * Keys by which the server knows a request that is sent again, and answers it as it did before. A request that got no
 * answer keeps its key: whoever presses the button once more does not do it twice.
 */
const unanswered = new Map<string, string>()

/** How many requests without an answer are remembered; the oldest go first. */
const most = 100

export const requestKeyHeader = 'Idempotency-Key'

/** The key of a request: the one it had when it got no answer, or a new one. */
export function keyFor(fingerprint: string): string {
  const key = unanswered.get(fingerprint) ?? newKey()
  unanswered.delete(fingerprint)
  unanswered.set(fingerprint, key)
  const oldest = unanswered.keys().next()
  if (unanswered.size > most && !oldest.done) unanswered.delete(oldest.value)
  return key
}

/** Forgets the key of a request that was answered. */
export function answered(fingerprint: string) {
  unanswered.delete(fingerprint)
}

/**
 * A random key. Browsers offer crypto.randomUUID only where the connection is safe, and a phone in the hall has none.
 */
function newKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join('')
}
