import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, queryClient, type Schemas } from './client'

export type Dated = Schemas['DatedMachine']
export type DatedPart = Schemas['DatedPart']
export type MachineModel = Schemas['MachineModel']
export type ModelFields = Schemas['ModelInput']

const datingKey = ['dating']

export const datingQuery = (machineId: number) =>
  queryOptions({ queryKey: [...datingKey, machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/dating', { params: { path: { id: machineId } } })) })

export const identifyStageQuery = (machineId: number) =>
  queryOptions({ queryKey: [...datingKey, 'stage', machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/identified', { params: { path: { id: machineId } } })) })

export const modelsQuery = (search: string) =>
  queryOptions({ queryKey: ['models', search], queryFn: () =>
    ask(api.GET('/api/models', { params: { query: { search } } })) })

/** What a machine is dated by has changed. */
export function datingChanged() {
  for (const queryKey of [datingKey, ['models']]) void queryClient.invalidateQueries({ queryKey })
}

export function useAddModel() {
  return useMutation({ mutationFn: (body: ModelFields) => ask(api.POST('/api/models', { body })),
    onSuccess: datingChanged })
}

export function useChangeModel(id: number) {
  return useMutation({
    mutationFn: (body: ModelFields & { version: number }) =>
      ask(api.PUT('/api/models/{id}', { params: { path: { id } }, body })),
    onSuccess: datingChanged,
  })
}
