import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, queryClient, type Schemas } from './client'
import { touched } from './touched'
import { offerUndo } from './undo'

export type Power = Schemas['Power']
export type Supply = Schemas['Supply']
export type SupplyFields = Schemas['SupplyInput']
export type RungView = Schemas['RungView']
export type RungFields = Schemas['Rung']
export type PowerUpView = Schemas['PowerUpView']
export type PowerPart = Schemas['PowerPart']
export type RailReading = Schemas['RailReading']

export const powerQuery = (machineId: number) =>
  queryOptions({ queryKey: ['power', machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/power', { params: { path: { id: machineId } } })) })

const changed = () => { touched('power') }

const told = (machineId: number) => (power: Power) => {
  queryClient.setQueryData(powerQuery(machineId).queryKey, power)
  changed()
}

export function useAddSupply(machineId: number) {
  return useMutation({
    mutationFn: (body: SupplyFields) =>
      ask(api.POST('/api/machines/{id}/supplies', { params: { path: { id: machineId } }, body })),
    onSuccess: changed,
  })
}

export function useChangeSupply(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['ChangedSupply']) => ask(api.PUT('/api/supplies/{id}', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}

export function useVoidSupply() {
  return useMutation({
    mutationFn: ({ id, version }: Supply) =>
      ask(api.POST('/api/supplies/{id}/void', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { name }) => {
      changed()
      offerUndo({ event, words: `The supply ${name} is deleted.` })
    },
  })
}

export function useSayPart(machineId: number, assemblyId: number) {
  return useMutation({
    mutationFn: (body: Schemas['SaidPart']) =>
      ask(api.PUT('/api/assemblies/{id}/power-parts', { params: { path: { id: assemblyId } }, body })),
    onSuccess: told(machineId),
    onError: changed,
  })
}

export function useBuildLadder(machineId: number) {
  return useMutation({
    mutationFn: () => ask(api.POST('/api/machines/{id}/ladder', { params: { path: { id: machineId } } })),
    onSuccess: told(machineId),
  })
}

export function useAddRung(machineId: number) {
  return useMutation({
    mutationFn: (body: RungFields) =>
      ask(api.POST('/api/machines/{id}/rungs', { params: { path: { id: machineId } }, body })),
    onSuccess: changed,
  })
}

export function useChangeRung(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['ChangedRung']) => ask(api.PUT('/api/rungs/{id}', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}

export function useVoidRung() {
  return useMutation({
    mutationFn: ({ id, version }: RungView) =>
      ask(api.POST('/api/rungs/{id}/void', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { step }) => {
      changed()
      offerUndo({ event, words: `The rung ${step} is off the ladder.` })
    },
  })
}

export function usePowerUp(machineId: number) {
  return useMutation({
    mutationFn: (body: Schemas['UpInput']) =>
      ask(api.POST('/api/machines/{id}/power-ups', { params: { path: { id: machineId } }, body })),
    onSuccess: ({ event, steps, result }) => {
      changed()
      offerUndo({ event, words: `${steps.join(', ')}: ${result === 'not' ? 'not as expected' : 'as expected'}.` })
    },
  })
}

export function useVoidPowerUp() {
  return useMutation({
    mutationFn: ({ id, version }: PowerUpView) =>
      ask(api.POST('/api/power-ups/{id}/void', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { on }) => {
      changed()
      offerUndo({ event, words: `That power was applied on ${on} is deleted.` })
    },
  })
}
