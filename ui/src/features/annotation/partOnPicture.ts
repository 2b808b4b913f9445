import { annotatedPicturesQuery, annotationQuery } from '../../api/annotations'
import { queryClient } from '../../api/client'

/**
 * The address of the first part of a line on the first picture of its board that has a number for it; undefined where
 * no picture has one. The line counts in the sheet as it is kept.
 */
export async function partOnPicture(machineId: number, assemblyId: number, line: number): Promise<string | undefined> {
  for (const { attachmentId } of await queryClient.fetchQuery(annotatedPicturesQuery(machineId))) {
    const told = await queryClient.fetchQuery(annotationQuery(attachmentId))
    const on = told.assemblyId === assemblyId ? told.legend.numbered.find((one) => one.line === line) : undefined
    if (on) {
      const part = encodeURIComponent(on.designator)
      return `/bench/${String(machineId)}/board-picture/${String(attachmentId)}?part=${part}`
    }
  }
  return undefined
}
