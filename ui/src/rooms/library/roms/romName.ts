/** What an image is called: its name and version, else where it was read first, else the start of its sum. */
export function romName({ name, romVersion, readFirst, sha256 }: { name?: string; romVersion?: string
  readFirst?: string; sha256: string }) {
  return name ? [name, romVersion].filter(Boolean).join(' ') : readFirst || `SHA-256 ${sha256.slice(0, 8)}`
}
