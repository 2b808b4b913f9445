import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { touched } from './touched'

const collectionKey = ['collection']

export const collectionQuery = queryOptions({
  queryKey: collectionKey,
  queryFn: () => ask(api.GET('/api/collection')),
})

export const registerQuery = queryOptions({
  queryKey: [...collectionKey, 'register'],
  queryFn: () => ask(api.GET('/api/collection/register')),
})

const onChange = { onSuccess: () => { touched('collection') } }

export function useChangeCollection() {
  return useMutation({
    mutationFn: (body: Schemas['ChangedCollection']) => ask(api.PUT('/api/collection', { body })),
    ...onChange,
  })
}

export function useImportNumbers() {
  return useMutation({
    mutationFn: (body: { text: string; dryRun: boolean }) => ask(api.POST('/api/collection/numbers', { body })),
    ...onChange,
  })
}
