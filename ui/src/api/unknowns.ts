import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, queryClient, type Schemas } from './client'
import { touched } from './touched'

export type Unknown = Schemas['Unknown']
export type QuestionView = Schemas['QuestionView']
export type Settled = Schemas['Settled']
export type QuestionFields = Schemas['QuestionInput']
export type IdentificationView = Schemas['IdentificationView']
export type IdentificationInput = Schemas['IdentificationInput']

/** What nobody knows yet; 0 for the whole collection. */
export const unknownsQuery = (machine: number) =>
  queryOptions({ queryKey: ['unknowns', machine], queryFn: () =>
    ask(api.GET('/api/unknowns', { params: { query: { machine } } })) })

function changed() {
  touched('unknown')
}

export function useAsk() {
  return useMutation({ mutationFn: (body: QuestionFields) => ask(api.POST('/api/questions', { body })),
    onSuccess: changed })
}

export function useChangeQuestion(id: number) {
  return useMutation({
    mutationFn: (body: { version: number; text: string; asked: string }) =>
      ask(api.PUT('/api/questions/{id}', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}

export function useGuess() {
  return useMutation({
    mutationFn: ({ id, ...body }: { id: number; text: string; reason: string }) =>
      ask(api.POST('/api/questions/{id}/guesses', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}

export function useAnswer() {
  return useMutation({
    mutationFn: ({ id, ...body }: { id: number; version: number; answer: string; source: string;
      type?: Schemas['OwnTypeInput']; known?: Schemas['KnownInput'] }) =>
      ask(api.POST('/api/questions/{id}/answer', { params: { path: { id } }, body })),
    onSuccess: changed,
  })
}

export const identificationsQuery = (machine: number) =>
  queryOptions({ queryKey: ['mysteries', machine], queryFn: () =>
    ask(api.GET('/api/identifications', { params: { query: { machine } } })) })

export const identificationQuery = (assemblyId: number) =>
  queryOptions({ queryKey: ['mysteries', 'of', assemblyId], queryFn: () =>
    ask(api.GET('/api/assemblies/{id}/identification', { params: { path: { id: assemblyId } } })) })

/** What people wrote about what a board could be. */
export type Weighed = Omit<IdentificationInput, 'version'>

/**
 * Changes what is thought about a board. Changes wait for each other: each starts from what the one before it left, so
 * that nobody meets their own words as those of somebody else.
 */
export function useWeigh(assemblyId: number) {
  return useMutation({
    scope: { id: `weigh ${String(assemblyId)}` },
    mutationFn: (change: (now: Weighed) => Partial<Weighed>) => {
      const now = queryClient.getQueryData(identificationQuery(assemblyId).queryKey)
      if (!now) throw new Error('What is thought about the board is not read yet.')
      const { hypotheses, evidence, dropped = [], decision, version } = now
      const written = { hypotheses, evidence, dropped, decision }
      return ask(api.PUT('/api/assemblies/{id}/identification', { params: { path: { id: assemblyId } },
        body: { version, ...written, ...change(written) } }))
    },
    onSuccess: (told) => {
      queryClient.setQueryData(identificationQuery(assemblyId).queryKey, told)
      touched('identification')
    },
  })
}
