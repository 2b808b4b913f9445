import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { touched } from './touched'
import { offerUndo } from './undo'

export type Capture = Schemas['Capture']
export type ConsoleSaid = Schemas['TextReading']
export type ConsoleText = Schemas['TextInput']

/** What the console of a machine said; asked again and again while somebody listens. */
export const consoleQuery = (machineId: number) =>
  queryOptions({
    queryKey: ['console', machineId],
    queryFn: () => ask(api.GET('/api/machines/{id}/console', { params: { path: { id: machineId } } })),
    refetchInterval: ({ state }) => state.data && state.data.port.machineId === machineId ? 700 : false,
  })

/** One with all its lines. */
export const captureQuery = (id: number) =>
  queryOptions({ queryKey: ['console', 'capture', id], queryFn: () =>
    ask(api.GET('/api/console-captures/{id}', { params: { path: { id } } })) })

export const consolePortQuery = queryOptions({ queryKey: ['console port'], queryFn: () =>
  ask(api.GET('/api/console-port')), staleTime: 30_000 })

/** What a text amounts to, while it is pasted. */
export const consoleReadingQuery = (machineId: number, body: ConsoleText) =>
  queryOptions({
    queryKey: ['console', machineId, 'read', body],
    queryFn: () => ask(api.POST('/api/machines/{id}/console/read', { params: { path: { id: machineId } }, body })),
    enabled: body.text.trim() !== '',
    retry: false,
  })

const changed = () => { touched('console') }

export function usePlayConsole() {
  return useMutation({
    mutationFn: (profile: string) => ask(api.POST('/api/console-port/stand-in', { body: { profile } })),
    onSettled: changed,
  })
}

export function useKeepText(machineId: number) {
  return useMutation({
    mutationFn: (body: ConsoleText) =>
      ask(api.POST('/api/machines/{id}/console/texts', { params: { path: { id: machineId } }, body })),
    onSuccess: changed,
  })
}

export function useListen(machineId: number) {
  return useMutation({
    mutationFn: (body: Schemas['ListenInput']) =>
      ask(api.POST('/api/machines/{id}/console/listen', { params: { path: { id: machineId } }, body })),
    onSettled: changed,
  })
}

export function useStopListening() {
  return useMutation({
    mutationFn: (id: number) => ask(api.POST('/api/console-captures/{id}/stop', { params: { path: { id } } })),
    onSettled: changed,
  })
}

export function useTypeOnConsole(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['TypedLine']) =>
      ask(api.POST('/api/console-captures/{id}/typed', { params: { path: { id } }, body })),
    onSettled: changed,
  })
}

/** Lets what a line says count as a statement. */
export function useTakeClaim(id: number) {
  return useMutation({
    mutationFn: (body: Schemas['TakeInput']) =>
      ask(api.POST('/api/console-captures/{id}/statements', { params: { path: { id } }, body })),
    onSettled: () => { touched('console', 'evidence') },
  })
}

export function useVoidCapture() {
  return useMutation({
    mutationFn: ({ id, version }: Capture) =>
      ask(api.POST('/api/console-captures/{id}/void', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { on }) => {
      offerUndo({ event, words: `What the console said on ${on} is deleted.` })
      changed()
    },
    onError: changed,
  })
}
