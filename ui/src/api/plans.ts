import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, queryClient, type Schemas } from './client'

export type PlanView = Schemas['PlanView']
export type DrawnPlan = Schemas['DrawnPlan']
export type Callout = Schemas['BoardNumbered']
export type Block = Schemas['BoardBlock']

export const plansQuery = (machineId: number) =>
  queryOptions({ queryKey: ['plans', 'of', machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/plans', { params: { path: { id: machineId } } })) })

export const planQuery = (attachmentId: number) =>
  queryOptions({ queryKey: ['plans', attachmentId], queryFn: () =>
    ask(api.GET('/api/attachments/{id}/plan', { params: { path: { id: attachmentId } } })) })

export function useDrawPlan(attachmentId: number) {
  return useMutation({
    mutationFn: (body: DrawnPlan) =>
      ask(api.PUT('/api/attachments/{id}/plan', { params: { path: { id: attachmentId } }, body })),
    onSuccess: (told) => {
      queryClient.setQueryData(planQuery(attachmentId).queryKey, told)
      void queryClient.invalidateQueries({ queryKey: ['plans', 'of'] })
    },
  })
}

export const drawingOf = (attachmentId: number, embedded: boolean) =>
  `/api/attachments/${String(attachmentId)}/plan.svg?embedded=${String(embedded)}`
