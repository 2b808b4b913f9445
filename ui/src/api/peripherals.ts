import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { offerUndo } from './undo'
import { touched } from './touched'

export type Serving = Schemas['Serving']

const peripheralsKey = ['peripherals']

/** What serves a machine without being fitted in it. */
export const peripheralsQuery = (machineId: number) =>
  queryOptions({ queryKey: [...peripheralsKey, 'of', machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/peripherals', { params: { path: { id: machineId } } })) })

/** The machines that a peripheral serves. */
export const servedQuery = (assemblyId: number) =>
  queryOptions({ queryKey: [...peripheralsKey, 'by', assemblyId], queryFn: () =>
    ask(api.GET('/api/assemblies/{id}/serves', { params: { path: { id: assemblyId } } })) })

/** Where a peripheral is has changed, or what it serves. */
export function peripheralsChanged() {
  touched('peripheral')
}

export function useServe() {
  return useMutation({
    mutationFn: ({ assemblyId: id, ...body }: Schemas['ServiceInput'] & { assemblyId: number }) =>
      ask(api.POST('/api/assemblies/{id}/serves', { params: { path: { id } }, body })),
    onSuccess: peripheralsChanged,
  })
}

export function useEndService() {
  return useMutation({
    mutationFn: ({ id, version }: Serving) =>
      ask(api.POST('/api/serves/{id}/end', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { title, accession }) => {
      offerUndo({ event, words: `${title} serves ${accession} no more.` })
      peripheralsChanged()
    },
    onError: peripheralsChanged,
  })
}
