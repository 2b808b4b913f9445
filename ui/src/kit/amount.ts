/** Reads an amount as people type it into cents; null for nothing, undefined for what is no amount. */
export function centsOf(text: string): number | null | undefined {
  const trimmed = text.trim()
  if (trimmed === '') return null
  const parts = /^(\d{1,10})(?:[.,](\d{1,2}))?$/.exec(trimmed)
  if (!parts) return undefined
  return Number(parts[1] ?? '') * 100 + Number((parts[2] ?? '').padEnd(2, '0'))
}

/** Writes cents as an amount; nothing for null. */
export function amountOf(cents: number | null | undefined): string {
  if (cents === null || cents === undefined) return ''
  return `${String(Math.floor(cents / 100))}.${String(cents % 100).padStart(2, '0')}`
}

/** Reads the amounts of a form by field name, with a message for each that is none. */
export function readAmounts(fields: Record<string, string>): { cents: Record<string, number | null>;
  wrong: Record<string, string> } {
  const cents: Record<string, number | null> = {}
  const wrong: Record<string, string> = {}
  for (const [name, text] of Object.entries(fields)) {
    const read = centsOf(text)
    if (read === undefined) wrong[name] =
      'Write an amount as 371.00, without currency and without marks between thousands.'
    else cents[name] = read
  }
  return { cents, wrong }
}
