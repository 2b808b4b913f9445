import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, queryClient, type Schemas } from './client'
import { offerUndo } from './undo'
import { touched } from './touched'

export type OpenedUp = Schemas['OpenedUp']
export type TeardownView = Schemas['TeardownView']
export type StepView = Schemas['StepView']
export type Step = Schemas['TeardownStep']
export type Fastener = Schemas['TeardownFastener']
export type StepInput = Schemas['StepInput']
export type Wiring = Schemas['Wiring']
export type ConnectorView = Schemas['ConnectorView']
export type Connector = Schemas['WiringConnector']
export type Procedure = Schemas['Procedure']
export type ProcedureFields = Omit<Schemas['ChangedProcedure'], 'version'>
export type Variant = Schemas['TeardownDiffering']

const openedKey = ['opened up']
const wiringKey = ['wiring']
export type Way = Schemas['WayView']

/** How one gets at a part of a machine, by each procedure and each log. */
export const wayQuery = (machineId: number, to: string) =>
  queryOptions({ queryKey: ['opened up', machineId, 'way', to], enabled: to !== '', queryFn: () =>
    ask(api.GET('/api/machines/{id}/way', { params: { path: { id: machineId }, query: { to } } })) })

export type KnownSocket = Schemas['KnownSocket']

/** Sockets that the library knows on the boards of a machine. */
export const knownSocketsQuery = (machineId: number) =>
  queryOptions({ queryKey: [...wiringKey, 'known', machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/known-sockets', { params: { path: { id: machineId } } })) })

const proceduresKey = ['procedures']

export const openedUpQuery = (machineId: number) =>
  queryOptions({ queryKey: [...openedKey, machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/opened-up', { params: { path: { id: machineId } } })) })

export const teardownQuery = (id: number) =>
  queryOptions({ queryKey: [...openedKey, 'log', id], queryFn: () =>
    ask(api.GET('/api/teardowns/{id}', { params: { path: { id } } })) })

/** A step that is being written: what to take care of before it comes off. Nothing is kept. */
export const readStepQuery = (teardownId: number, steps: number, body: StepInput) =>
  queryOptions({
    queryKey: [...openedKey, 'read', teardownId, steps, body],
    queryFn: ({ signal }) =>
      ask(api.POST('/api/teardowns/{id}/read', { params: { path: { id: teardownId } }, body, signal })),
    enabled: Boolean(body.line?.trim()) || Boolean(body.step),
  })

export const wiringQuery = (machineId: number) =>
  queryOptions({ queryKey: [...wiringKey, machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/wiring', { params: { path: { id: machineId } } })) })

export const proceduresQuery = queryOptions({ queryKey: proceduresKey, queryFn: () => ask(api.GET('/api/procedures')) })

export const procedureQuery = (id: number) =>
  queryOptions({ queryKey: [...proceduresKey, id], queryFn: () =>
    ask(api.GET('/api/procedures/{id}', { params: { path: { id } } })) })

/** Log, map and what follows from them hang together. Where somebody was faster, what they did is read, too. */
function changed() {
  touched('opening')
}

function told(log: TeardownView) {
  queryClient.setQueryData<OpenedUp>(openedUpQuery(log.machineId).queryKey, (before) =>
    before && { ...before, now: log.outcome === 'open' ? log : null })
  changed()
}

export function useStartTeardown(machineId: number) {
  return useMutation({
    mutationFn: (body: Schemas['StartedTeardown']) =>
      ask(api.POST('/api/machines/{id}/teardowns', { params: { path: { id: machineId } }, body })),
    onSuccess: told,
  })
}

export function useAddStep(teardownId: number) {
  return useMutation({
    mutationFn: (body: StepInput) =>
      ask(api.POST('/api/teardowns/{id}/steps', { params: { path: { id: teardownId } }, body })),
    onSuccess: told,
  })
}

export function useChangeStep(id: number) {
  return useMutation({
    mutationFn: (body: StepInput & { version: number }) =>
      ask(api.PUT('/api/teardown-steps/{id}', { params: { path: { id } }, body })),
    onSuccess: told,
  })
}

export function useVoidStep() {
  return useMutation({
    mutationFn: ({ id, version }: StepView) =>
      ask(api.POST('/api/teardown-steps/{id}/void', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { n, off }) => {
      changed()
      offerUndo({ event, words: `Step ${String(n)}, ${off}, is deleted.` })
    },
    onError: changed,
  })
}

export function useReverseStep() {
  return useMutation({
    mutationFn: ({ id, ...body }: Schemas['ReversedStep'] & { id: number }) =>
      ask(api.POST('/api/teardown-steps/{id}/reversal', { params: { path: { id } }, body })),
    onSuccess: told,
    onError: changed,
  })
}

export function useEndTeardown() {
  return useMutation({ mutationFn: (id: number) =>
    ask(api.POST('/api/teardowns/{id}/end', { params: { path: { id } } })), onSuccess: told })
}

export function useMapConnector(machineId: number) {
  return useMutation({
    mutationFn: (body: Connector) =>
      ask(api.POST('/api/machines/{id}/wiring', { params: { path: { id: machineId } }, body })),
    onSuccess: changed,
  })
}

export function useChangeConnector(id: number) {
  return useMutation({
    mutationFn: (body: Connector & { version: number }) =>
      ask(api.PUT('/api/connectors/{id}', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}

export function usePlugConnector() {
  return useMutation({
    mutationFn: ({ id, ...body }: { id: number; version: number; open: boolean }) =>
      ask(api.POST('/api/connectors/{id}/open', { params: { path: { id } }, body })),
    onSettled: changed,
  })
}

export function useVoidConnector() {
  return useMutation({
    mutationFn: ({ id, version }: ConnectorView) =>
      ask(api.POST('/api/connectors/{id}/void', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { name }) => {
      changed()
      offerUndo({ event, words: `${name} is off the map.` })
    },
    onError: changed,
  })
}

export function useMakeProcedure(teardownId: number) {
  return useMutation({
    mutationFn: (body: Schemas['NewProcedure']) =>
      ask(api.POST('/api/teardowns/{id}/procedure', { params: { path: { id: teardownId } }, body })),
    onSuccess: changed,
  })
}

export function useChangeProcedure(id: number) {
  return useMutation({
    mutationFn: (body: ProcedureFields & { version: number }) =>
      ask(api.PUT('/api/procedures/{id}', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}

export const wiringList = (machineId: number) => `/api/machines/${String(machineId)}/wiring.csv`
/** The drawing of a board's sockets; the stamp makes it anew when the map changes. */
export const wiringDrawing = (machineId: number, board: string, stamp: string) =>
  `/api/machines/${String(machineId)}/wiring.svg?${new URLSearchParams({ board, stamp }).toString()}`
