import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, queryClient, type Schemas } from './client'

export type Practice = Schemas['Practice']
export type Exercise = Schemas['Exercise']
export type Act = Schemas['Act']
export type NamedFault = Schemas['NamedFault']

export const practiceQuery = queryOptions({ queryKey: ['practice'], queryFn: () => ask(api.GET('/api/practice')) })

const told = (practice: Practice) => { queryClient.setQueryData(practiceQuery.queryKey, practice) }
const again = () => queryClient.invalidateQueries(practiceQuery)

export function useBeginPractice() {
  return useMutation({ mutationFn: (seed: number) => ask(api.POST('/api/practice', { body: { seed } })), onSuccess: told,
    onError: again })
}

/** Does something on the practice machine. Deeds go one behind the other. */
export function usePractise() {
  return useMutation({ scope: { id: 'practice' },
    mutationFn: (act: Act) => ask(api.POST('/api/practice/deeds', { body: act })), onSuccess: told, onError: again })
}

export function useEndPractice() {
  return useMutation({ mutationFn: (said: NamedFault) => ask(api.POST('/api/practice/diagnosis', { body: said })),
    onSuccess: told, onError: again })
}
