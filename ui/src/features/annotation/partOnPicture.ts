import { annotatedPicturesQuery, annotationQuery } from '../../api/annotations'
import { queryClient } from '../../api/client'

/**
 * The address of a part on the first picture of its machine that has a number for it; undefined where no picture has
 * one. Designators are tried in order, as a line names them.
 */
export async function partOnPicture(machineId: number, assemblyId: number,
  designators: string[]): Promise<string | undefined> {
  for (const { attachmentId } of await queryClient.fetchQuery(annotatedPicturesQuery(machineId))) {
    const told = await queryClient.fetchQuery(annotationQuery(attachmentId))
    if (told.assemblyId !== assemblyId) continue
    const on = designators.find((designator) => told.legend.numbered.some((one) => one.designator === designator))
    if (on) return `/bench/${String(machineId)}/board-picture/${String(attachmentId)}?part=${encodeURIComponent(on)}`
  }
  return undefined
}

const run = /^([A-Za-z]{1,6})(\d{1,4})(?:(?:-|\.\.)(?:[A-Za-z]{1,6})?(\d{1,4}))?$/

/** The designators of a line of a sheet, as it names them: U14, U40-U43 or U20,U22; none for a line of words. */
export function designatorsOf(line: string): string[] {
  const [parts = ''] = line.trim().split(/\s+/)
  return parts.split(',').flatMap((one) => {
    const [, letters, first, last] = run.exec(one) ?? []
    if (!letters || !first) return []
    const count = last ? Math.min(Number(last) - Number(first), 4096) : 0
    return Array.from({ length: Math.max(0, count) + 1 },
      (_, i) => `${letters.toUpperCase()}${String(Number(first) + i)}`)
  })
}
