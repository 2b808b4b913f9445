import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { touched } from './touched'
import { offerUndo } from './undo'

export type Diagnosis = Schemas['Diagnosis']
export type DiagnosisFields = Schemas['DiagnosisInput']
export type Factor = Schemas['FactorInput']
export type Trial = Schemas['TrialInput']
export type Elsewhere = Schemas['Elsewhere']
export type Offered = Schemas['Offered']

/** Symptoms of a machine with their trials, and what these tell. */
export const diagnosesQuery = (machineId: number) =>
  queryOptions({ queryKey: ['diagnoses', machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/diagnoses', { params: { path: { id: machineId } } })) })

const changed = () => { touched('diagnosis') }

export function useBeginDiagnosis(machineId: number) {
  return useMutation({
    mutationFn: (body: DiagnosisFields) =>
      ask(api.POST('/api/machines/{id}/diagnoses', { params: { path: { id: machineId } }, body })),
    onSuccess: changed,
  })
}

export function useChangeDiagnosis(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['ChangedDiagnosis']) =>
      ask(api.PUT('/api/diagnoses/{id}', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}

export function useVoidDiagnosis() {
  return useMutation({
    mutationFn: ({ id, version }: Diagnosis) =>
      ask(api.POST('/api/diagnoses/{id}/void', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { symptom }) => {
      changed()
      offerUndo({ event, words: `The search for the cause of “${symptom}” is deleted.` })
    },
  })
}

/** What somebody wrote of one, without what follows from it. */
export const fieldsOf = ({ symptom, since, factors, trials, state, cause, note }: Diagnosis): DiagnosisFields =>
  ({ symptom, since, factors, trials, state, cause, note })

export type Memory = Schemas['MachineMemory']
export type Layout = Schemas['MemoryLayout']
export type LayoutFields = Omit<Schemas['ChangedLayout'], 'version'>

/** How the memory of a machine is laid out, and to which chips its tests lead. */
export const memoryQuery = (machineId: number) =>
  queryOptions({ queryKey: ['memory', machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/memory', { params: { path: { id: machineId } } })) })

export function useLayOutMemory(machineId: number) {
  return useMutation({
    mutationFn: (body: Schemas['ChangedLayout']) =>
      ask(api.PUT('/api/machines/{id}/memory-layout', { params: { path: { id: machineId } }, body })),
    onSuccess: changed,
  })
}
