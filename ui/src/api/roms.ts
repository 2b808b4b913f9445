import { keepPreviousData, queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, queryClient, type Schemas } from './client'
import { offerUndo } from './undo'
import { upload } from './upload'
import { touched } from './touched'

export type RomSocket = Schemas['RomSocket']
export type RomImage = Schemas['RomImage']
export type RomView = Schemas['RomView']
export type RomFields = Omit<Schemas['ChangedRom'], 'version'>
export type AddedRead = Schemas['AddedRead']
export type ChipReading = Schemas['ChipReading']

const romsKey = ['roms']

export const romSocketsQuery = (machineId: number) =>
  queryOptions({ queryKey: [...romsKey, 'sockets', machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/roms', { params: { path: { id: machineId } } })) })

export const romListQuery = (search: string) =>
  queryOptions({ queryKey: [...romsKey, 'list', search], queryFn: () =>
    ask(api.GET('/api/roms', { params: { query: { search } } })), placeholderData: keepPreviousData })

export const romQuery = (sha256: string) =>
  queryOptions({ queryKey: [...romsKey, sha256], queryFn: () =>
    ask(api.GET('/api/roms/{sha256}', { params: { path: { sha256 } } })) })

/** The map never changes: the image is named by its content. */
export const romMapQuery = (sha256: string, cell: number) =>
  queryOptions({
    queryKey: [...romsKey, sha256, 'map', cell],
    queryFn: () => ask(api.GET('/api/roms/{sha256}/map', { params: { path: { sha256 }, query: { cell } } })),
    staleTime: Infinity,
  })

export const romBytesQuery = (sha256: string, from: number, count: number) =>
  queryOptions({
    queryKey: [...romsKey, sha256, 'bytes', from, count],
    queryFn: () => ask(api.GET('/api/roms/{sha256}/bytes', { params: { path: { sha256 }, query: { from, count } } })),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  })

export const romComparisonQuery = (a: string, b: string, cell: number) =>
  queryOptions({
    queryKey: [...romsKey, a, 'against', b, cell],
    queryFn: () => ask(api.GET('/api/roms/{sha256}/against/{other}',
      { params: { path: { sha256: a, other: b }, query: { cell } } })),
    staleTime: Infinity,
  })

export const romFileOf = (sha256: string, format: 'bin' | 'ihex' | 'srec') =>
  `/api/roms/${sha256}/file?format=${format}`

function changed() {
  touched('rom')
}

export type Reading = { assemblyId: number; designator: string; label: string; exception: string }

export function useAddRomFiles() {
  return useMutation({
    mutationFn: async ({ files, reading }: { files: File[]; reading: Reading }) => {
      const added: AddedRead[] = []
      for (const file of files) {
        const query = new URLSearchParams({ name: file.name, designator: reading.designator, label: reading.label,
          exception: reading.exception })
        added.push(
          ...(await upload<AddedRead[]>(`/api/assemblies/${String(reading.assemblyId)}/roms?${query.toString()}`,
            file)))
      }
      return added
    },
    // Also after a refusal: files before it were kept.
    onSettled: changed,
  })
}

export function useExceptRead() {
  return useMutation({
    mutationFn: ({ id, why }: { id: number; why: string }) =>
      ask(api.POST('/api/rom-reads/{id}/exception', { params: { path: { id } }, body: { why } })),
    onSuccess: changed,
  })
}

export function useVoidRead() {
  return useMutation({
    mutationFn: (id: number) => ask(api.POST('/api/rom-reads/{id}/void', { params: { path: { id } } })),
    onSuccess: ({ event }) => {
      changed()
      offerUndo({ event, words: 'The reading is deleted.' })
    },
  })
}

export function useNameRom(sha256: string) {
  return useMutation({
    mutationFn: (body: RomFields & { version: number }) =>
      ask(api.PUT('/api/roms/{sha256}', { params: { path: { sha256 } }, body })),
    onSuccess: changed,
  })
}

export function useSplitRom(sha256: string) {
  return useMutation({ mutationFn: (lanes: number) =>
    ask(api.POST('/api/roms/{sha256}/split', { params: { path: { sha256 } }, body: { lanes } })), onSuccess: changed })
}

export function useMergeRoms() {
  return useMutation({ mutationFn: (lanes: string[]) => ask(api.POST('/api/roms/merge', { body: { lanes } })),
    onSuccess: changed })
}

export const romSetsQuery = queryOptions({ queryKey: [...romsKey, 'sets'], queryFn: () =>
  ask(api.GET('/api/rom-sets')) })

export function useNameRomSet() {
  return useMutation({
    mutationFn: ({ assemblyId, name }: { assemblyId: number; name: string }) =>
      ask(api.POST('/api/assemblies/{id}/rom-set', { params: { path: { id: assemblyId } }, body: { name } })),
    onSuccess: changed,
  })
}

export const readerQuery = queryOptions({ queryKey: ['reader'], queryFn: () => ask(api.GET('/api/reader')) })

export function usePrepareStandIn() {
  return useMutation({
    scope: { id: 'stand-in reader' }, // told in order: it holds what it was told last
    mutationFn: (body: { chip: string; fault: string }) => ask(api.PUT('/api/reader/stand-in', { body })),
    onSettled: () => queryClient.invalidateQueries(readerQuery),
  })
}

const lookEvery = 300

export const chipReadingQuery = (id: number) =>
  queryOptions({
    queryKey: ['chip reading', id],
    queryFn: async () => {
      const reading = await ask(api.GET('/api/chip-readings/{id}', { params: { path: { id } } }))
      if (reading.state === 'done') changed()
      return reading
    },
    enabled: id > 0,
    // A reading that a stopped server left goes on by itself once another is there.
    refetchInterval: ({ state: { data } }) =>
      data?.state === 'running' ? lookEvery : data?.state === 'stopped' && 5 * lookEvery,
  })

export function useStartReading() {
  return useMutation({
    mutationFn: ({ assemblyId, ...body }: Schemas['ReadingInput'] & { assemblyId: number }) =>
      ask(api.POST('/api/assemblies/{id}/chip-readings', { params: { path: { id: assemblyId } }, body })),
  })
}

export function useTurnReading(id: number) {
  return useMutation({
    mutationFn: (turn: 'stop' | 'resume') =>
      ask(turn === 'stop' ? api.POST('/api/chip-readings/{id}/stop', { params: { path: { id } } })
        : api.POST('/api/chip-readings/{id}/resume', { params: { path: { id } } })),
    onSuccess: (reading) => {
      queryClient.setQueryData(chipReadingQuery(id).queryKey, reading)
      void queryClient.invalidateQueries({ queryKey: chipReadingQuery(id).queryKey })
    },
  })
}
