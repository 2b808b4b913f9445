import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, queryClient, type Schemas } from './client'

export type AnnotationView = Schemas['AnnotationView']
export type AnnotationInput = Schemas['AnnotationInput']
export type Callout = Schemas['BoardNumbered']
export type Block = Schemas['BoardBlock']

export const annotatedPicturesQuery = (machineId: number) =>
  queryOptions({ queryKey: ['plans', 'of', machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/annotations', { params: { path: { id: machineId } } })) })

export const annotationQuery = (attachmentId: number) =>
  queryOptions({ queryKey: ['plans', attachmentId], queryFn: () =>
    ask(api.GET('/api/attachments/{id}/annotation', { params: { path: { id: attachmentId } } })) })

export function useAnnotate(attachmentId: number) {
  return useMutation({
    mutationFn: (body: AnnotationInput) =>
      ask(api.PUT('/api/attachments/{id}/annotation', { params: { path: { id: attachmentId } }, body })),
    onSuccess: (told) => {
      queryClient.setQueryData(annotationQuery(attachmentId).queryKey, told)
      void queryClient.invalidateQueries({ queryKey: ['plans', 'of'] })
    },
  })
}

export const drawingOf = (attachmentId: number, embedded: boolean) =>
  `/api/attachments/${String(attachmentId)}/annotation.svg?embedded=${String(embedded)}`
