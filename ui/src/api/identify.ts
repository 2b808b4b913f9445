import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { touched } from './touched'

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

export type ModelPage = Schemas['ModelPage']
export type Compared = Schemas['Compared']

/** All that is known of a model. */
export const modelQuery = (id: number) =>
  queryOptions({ queryKey: ['models', 'one', id], queryFn: () =>
    ask(api.GET('/api/models/{id}', { params: { path: { id } } })) })

/** A model beside another model, or beside a machine. */
export const besideQuery = (id: number, what: 'model' | 'machine', other: number) =>
  queryOptions({ queryKey: ['models', 'beside', id, what, other], enabled: other > 0, queryFn: () => what === 'model'
    ? ask(api.GET('/api/models/{id}/beside-model/{other}', { params: { path: { id, other } } }))
    : ask(api.GET('/api/models/{id}/beside-machine/{other}', { params: { path: { id, other } } })) })

/** What a machine is dated by has changed. */
export function datingChanged() {
  touched('dating')
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
