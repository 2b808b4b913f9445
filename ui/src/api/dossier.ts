import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, queryClient, type Schemas } from './client'
import { messageOf } from './problem'
import { machineQuery, placesQuery } from './machines'
import { anythingMayDiffer, offerUndo } from './undo'
import { touched } from './touched'

export type Dossier = Schemas['Dossier']
export type Known = Schemas['Known']
export type Fact = Schemas['FactFact']
export type Stated = Schemas['Stated']
export type CustodyView = Schemas['CustodyView']
export type CustodyFinding = Schemas['CustodyProblem']
export type PersonalData = Schemas['PersonalData']
export type Location = Schemas['Location']
export type StatementFields = Schemas['StatementInput']
export type CustodyFields = Schemas['CustodyInput']
export type Region = Schemas['Region']
export type WalkStep = Schemas['Step']

const dossiersKey = ['dossier']

export const dossierQuery = (machineId: number) =>
  queryOptions({
    queryKey: [...dossiersKey, machineId],
    queryFn: () => ask(api.GET('/api/machines/{id}/dossier', { params: { path: { id: machineId } } })),
  })

/** Attributes, kinds of sources and roles: they never change while the application runs. */
export const vocabularyQuery = queryOptions({
  queryKey: ['vocabulary'],
  queryFn: () => ask(api.GET('/api/vocabulary')),
  staleTime: Infinity,
})

/** Whatever is written about a machine may change what is reckoned of it. */
export function dossierChanged() {
  touched('evidence')
}

const onChange = { onSuccess: dossierChanged }

export function useStateEvidence(machineId: number) {
  return useMutation({
    mutationFn: (body: StatementFields) =>
      ask(api.POST('/api/machines/{id}/evidence', { params: { path: { id: machineId } }, body })),
    ...onChange,
  })
}

export function useRetractStatement() {
  return useMutation({
    mutationFn: ({ id, why }: { id: number; why: string }) =>
      ask(api.POST('/api/evidence/{id}/retract', { params: { path: { id } }, body: { why } })),
    onSuccess: ({ event }) => {
      dossierChanged()
      offerUndo({ event, words: 'The statement does not count any more.' })
    },
  })
}

export function useTellCustody(machineId: number) {
  return useMutation({
    mutationFn: (body: CustodyFields) =>
      ask(api.POST('/api/machines/{id}/custody', { params: { path: { id: machineId } }, body })),
    ...onChange,
  })
}

export function useChangeCustody(id: number) {
  return useMutation({
    mutationFn: (body: CustodyFields & { version: number }) =>
      ask(api.PUT('/api/custody/{id}', { params: { path: { id } }, body })),
    ...onChange,
  })
}

export function useRetractCustody() {
  return useMutation({
    mutationFn: ({ id, why }: { id: number; why: string }) =>
      ask(api.POST('/api/custody/{id}/retract', { params: { path: { id } }, body: { why } })),
    onSuccess: ({ event }) => {
      dossierChanged()
      offerUndo({ event, words: 'The statement about the past does not count any more.' })
    },
  })
}

export function useNotePersonalData(machineId: number) {
  return useMutation({
    mutationFn: (body: Schemas['PersonalDataInput']) =>
      ask(api.POST('/api/machines/{id}/personal-data', { params: { path: { id: machineId } }, body })),
    ...onChange,
  })
}

export function useDecidePersonalData(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['PersonalDataInput'] & { version: number }) =>
      ask(api.PUT('/api/personal-data/{id}', { params: { path: { id } }, body })),
    ...onChange,
  })
}

export type MachineMove = Omit<Schemas['MachineMoveInput'], 'version'>

export function useMoveMachine(machineId: number) {
  return useMutation({
    mutationFn: (body: MachineMove & { version: number }) =>
      ask(api.POST('/api/machines/{id}/moves', { params: { path: { id: machineId } }, body })),
    onSuccess: ({ machine, event, where }) => {
      queryClient.setQueryData(machineQuery(machineId).queryKey, machine)
      touched('move', 'evidence')
      offerUndo({ event, words: `${machine.accession} is moved: ${where}.` })
    },
  })
}

export type MovedMany = { done: number; failed: { id: number; why: string }[] }

/** Moves machines to a place one after the other: each stands for itself, and one that cannot be moved stops none. */
export function useMoveMany() {
  return useMutation({
    mutationFn: async ({ ids, ...to }: { ids: number[]; place: string; on: string; note: string }) => {
      const moved: MovedMany = { done: 0, failed: [] }
      for (const id of ids) {
        try {
          const { version } = await ask(api.GET('/api/machines/{id}', { params: { path: { id } } }))
          await ask(api.POST('/api/machines/{id}/moves', { params: { path: { id } },
            body: { version, to: 'place', lentTo: '', boundFor: '', due: '', ...to } }))
          moved.done++
        } catch (error) {
          moved.failed.push({ id, why: messageOf(error) })
        }
      }
      return moved
    },
    onSuccess: () => { touched('move', 'evidence') },
  })
}

/** Data of former owners about which something is still to be decided or done, in the whole collection. */
export const openDataQuery = queryOptions({
  queryKey: [...dossiersKey, 'open data'],
  queryFn: () => ask(api.GET('/api/personal-data')),
})

export const placeCountsQuery = queryOptions({
  queryKey: [...placesQuery.queryKey, 'counts'],
  queryFn: () => ask(api.GET('/api/places/counts')),
})

/** Gives a place another name; the places in it come along, and machines are found by the new one. */
export function useRenamePlace() {
  return useMutation({
    mutationFn: (body: Schemas['RenamedPlace']) => ask(api.PUT('/api/places/name', { body })),
    onSuccess: ({ event }, { from, to }) => {
      offerUndo({ event, words: `${from} is called ${to} now.` })
      anythingMayDiffer() // places stand in every room
    },
  })
}
