/** What of a value is not worth reading: numbers of records and versions. */
const machinery = /^(version|base|id|.*Id|pictures|region|key)$/

/** The words that were typed, of a body that is sent, or of what a form keeps. */
export function wordsOf(value: unknown): string {
  if (value instanceof Blob) return 'name' in value && value.name ? String(value.name) : 'a file'
  return inside(typeof value === 'string' ? read(value) : value).join(' · ')
}

function read(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return text
  }
}

function inside(value: unknown): string[] {
  if (typeof value === 'string') return value.trim() ? [value.trim()] : []
  if (typeof value === 'number') return [String(value)]
  if (Array.isArray(value)) return value.flatMap(inside)
  if (value && typeof value === 'object')
    return Object.entries(value).flatMap(([name, held]) => (machinery.test(name) ? [] : inside(held)))
  return []
}
