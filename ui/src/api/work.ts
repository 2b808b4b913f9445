import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { touched } from './touched'
import { offerUndo } from './undo'

export type Treatment = Schemas['Treatment']
export type Job = Schemas['Job']
export type JobFields = Schemas['JobInput']
export type Wanting = Schemas['Wanting']
export type UsualJob = Schemas['Template']

export const treatmentQuery = (machineId: number) =>
  queryOptions({ queryKey: ['treatment', machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/treatment', { params: { path: { id: machineId } } })) })

export const openJobsQuery = queryOptions({ queryKey: ['treatment', 'open'], queryFn: () => ask(api.GET('/api/jobs')) })

const changed = () => { touched('job') }

export function useAddJob(machineId: number) {
  return useMutation({
    mutationFn: (body: JobFields) =>
      ask(api.POST('/api/machines/{id}/jobs', { params: { path: { id: machineId } }, body })),
    onSuccess: changed,
  })
}

export function useChangeJob(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['ChangedJob']) => ask(api.PUT('/api/jobs/{id}', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}

export function useWorkOnJob(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['WorkedOnJob']) => ask(api.POST('/api/jobs/{id}/work', { params: { path: { id } }, body })),
    onSuccess: changed,
    onError: changed, // somebody else may have taken it in hand
  })
}

export function useFinishJob(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['FinishedJob']) =>
      ask(api.POST('/api/jobs/{id}/finish', { params: { path: { id } }, body })),
    onSuccess: () => { touched('job', 'judgement', 'sheet', 'board') },
  })
}

export function useVoidJob() {
  return useMutation({
    mutationFn: ({ id, version }: Job) =>
      ask(api.POST('/api/jobs/{id}/void', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { title }) => {
      changed()
      offerUndo({ event, words: `The job ${title} is deleted.` })
    },
  })
}

export type Policy = Schemas['Policy']

/** By which school is restored: for a machine, or for 0 for the collection. */
export const policiesQuery = (machineId: number) => queryOptions({ queryKey: ['policies', machineId], queryFn: () =>
  machineId === 0 ? ask(api.GET('/api/policies'))
    : ask(api.GET('/api/machines/{id}/policies', { params: { path: { id: machineId } } })) })

/** What each option of a question takes at a machine. */
export const policyCostsQuery = (machineId: number, question: string) => queryOptions({
  queryKey: ['policies', machineId, 'costs', question], queryFn: () =>
    ask(api.GET('/api/machines/{id}/policies/{question}/costs', { params: { path: { id: machineId, question } } })) })

export function useChoose(machineId: number, question: string) {
  return useMutation({
    mutationFn: (body: Schemas['MadeChoice']) => machineId === 0
      ? ask(api.PUT('/api/policies/{question}', { params: { path: { question } }, body }))
      : ask(api.PUT('/api/machines/{id}/policies/{question}', { params: { path: { id: machineId, question } }, body })),
    onSuccess: () => { touched('policy') },
    onError: () => { touched('policy') }, // somebody else may have decided
  })
}

export function useProveJob(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['ProvedJob']) => ask(api.POST('/api/jobs/{id}/proof', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}
