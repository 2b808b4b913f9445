/** What an image is called: its name and version, else the start of its sum. */
export function romName({ name, romVersion, sha256 }: { name?: string; romVersion?: string; sha256: string }) {
  return name ? [name, romVersion].filter(Boolean).join(' ') : `SHA-256 ${sha256.slice(0, 8)}`
}
