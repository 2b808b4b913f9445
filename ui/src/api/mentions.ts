import { queryOptions, useMutation, useQuery } from '@tanstack/react-query'

import { api, ask, queryClient, type Schemas, whenNamesAreFound } from './client'

export type Mention = Schemas['Mention']

const mentionsKey = ['mentions']
const foundKey = ['names found']

export const mentionsQuery = queryOptions({
  queryKey: mentionsKey,
  queryFn: ({ signal }) => ask(api.GET('/api/mentions', { signal })),
})

/** Asks about names that were just saved, or lets them be for now. */
export function offerMentions(isOffered: boolean) {
  queryClient.setQueryData(foundKey, isOffered)
  if (isOffered) void queryClient.invalidateQueries({ queryKey: mentionsKey })
}

whenNamesAreFound(() => { offerMentions(true) })

export function useMentionsOffered(): boolean {
  return useQuery({ queryKey: foundKey, queryFn: () => false, enabled: false, initialData: false }).data
}

/** Says whether a private person is meant. What others may search for changes with it. */
export function useDecideMention() {
  return useMutation({
    mutationFn: ({ id, version, meant }: { id: number; version: number; meant: boolean }) =>
      ask(api.POST('/api/mentions/{id}/decision', { params: { path: { id } }, body: { version, meant } })),
    onSettled: () => { void queryClient.invalidateQueries({ queryKey: mentionsKey }) },
  })
}
