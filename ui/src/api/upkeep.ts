import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { touched } from './touched'
import { offerUndo } from './undo'

export type Rule = Schemas['Rule']
export type RuleFields = Schemas['RuleInput']
export type Round = Schemas['Round']
export type RoundSummary = Schemas['RoundSummary']
export type RoundStop = Schemas['RoundStop']
export type Answered = Schemas['Answered']
export type DiaryWeek = Schemas['DiaryWeek']
export type DiaryEntry = Schemas['DiaryEntry']
export type Plan = Schemas['Plan']
export type PlanFields = Schemas['PlanInput']

export const rulesQuery = queryOptions({ queryKey: ['upkeep', 'rules'], queryFn: () => ask(api.GET('/api/upkeep-rules')) })
/** What a rule can be of: machines, and classes of parts that age. */
export const subjectsQuery = queryOptions({ queryKey: ['upkeep', 'subjects'], queryFn: () =>
  ask(api.GET('/api/upkeep-rules/subjects')) })
export const roundsDueQuery = queryOptions({ queryKey: ['upkeep', 'due'], queryFn: () => ask(api.GET('/api/rounds/due')),
  staleTime: 0 })
export const roundsQuery = queryOptions({ queryKey: ['upkeep', 'rounds'], queryFn: () => ask(api.GET('/api/rounds')) })
export const roundQuery = (id: number) => queryOptions({ queryKey: ['upkeep', 'round', id], queryFn: () =>
  ask(api.GET('/api/rounds/{id}', { params: { path: { id } } })) })
export const machineUpkeepQuery = (id: number) => queryOptions({ queryKey: ['upkeep', 'machine', id], queryFn: () =>
  ask(api.GET('/api/machines/{id}/upkeep', { params: { path: { id } } })) })
/** Weeks of the diary from the one that a day lies in; from this one without a day. */
export const diaryQuery = (from: string, weeks: number) => queryOptions({ queryKey: ['upkeep', 'diary', from, weeks],
  queryFn: () => ask(api.GET('/api/diary', { params: { query: { from: from || undefined, weeks } } })), staleTime: 0 })
export const calendarAddressQuery = queryOptions({ queryKey: ['own sessions', 'calendar'], queryFn: () =>
  ask(api.GET('/api/calendar-address')) })

const changed = () => { touched('upkeep') }

export const useAddRule = () => useMutation({
  mutationFn: (body: RuleFields) => ask(api.POST('/api/upkeep-rules', { body })), onSuccess: changed })

export const useChangeRule = (id: number) => useMutation({
  mutationFn: (body: Schemas['ChangedRule']) => ask(api.PUT('/api/upkeep-rules/{id}', { params: { path: { id } }, body })),
  onSuccess: changed })

export const useVoidRule = () => useMutation({
  mutationFn: ({ id, version }: Rule) =>
    ask(api.POST('/api/upkeep-rules/{id}/void', { params: { path: { id }, query: { version } } })),
  onSuccess: ({ event }, { task }) => {
    changed()
    offerUndo({ event, words: `The rule ${task} is deleted.` })
  } })

export const useBeginRound = () => useMutation({
  mutationFn: (body: Schemas['RoundInput']) => ask(api.POST('/api/rounds', { body })), onSuccess: changed,
  onError: changed })

/** What is said of a stop: looks, findings, sheets and days follow from it. */
export const useAnswerStop = (id: number, n: number) => useMutation({
  mutationFn: (body: Answered) => ask(api.POST('/api/rounds/{id}/stops/{n}', { params: { path: { id, n } }, body })),
  onSuccess: () => { touched('upkeep', 'judgement', 'sheet', 'board') }, onError: changed })

export const useDoUpkeep = (machineId: number) => useMutation({
  mutationFn: (body: Schemas['DoneInput']) =>
    ask(api.POST('/api/machines/{id}/upkeep', { params: { path: { id: machineId } }, body })),
  onSuccess: () => { touched('upkeep', 'judgement', 'sheet', 'board') } })

export const useEndRound = (id: number) => useMutation({
  mutationFn: (body: Schemas['EndedRound']) => ask(api.POST('/api/rounds/{id}/end', { params: { path: { id } }, body })),
  onSuccess: changed, onError: changed })

export const useAddPlan = () => useMutation({
  mutationFn: (body: PlanFields) => ask(api.POST('/api/plans', { body })), onSuccess: changed })

export const useChangePlan = (id: number) => useMutation({
  mutationFn: (body: Schemas['ChangedPlan']) => ask(api.PUT('/api/plans/{id}', { params: { path: { id } }, body })),
  onSuccess: changed })

export const useVoidPlan = () => useMutation({
  mutationFn: ({ id, version }: Plan) =>
    ask(api.POST('/api/plans/{id}/void', { params: { path: { id }, query: { version } } })),
  onSuccess: ({ event }, { task }) => {
    changed()
    offerUndo({ event, words: `The plan ${task} is deleted.` })
  } })

const addressChanged = () => { touched('session') }

export const useMakeAddress = () => useMutation({
  mutationFn: () => ask(api.POST('/api/calendar-address')), onSuccess: addressChanged })

export const useDropAddress = () => useMutation({
  mutationFn: () => ask(api.DELETE('/api/calendar-address')), onSuccess: addressChanged })
