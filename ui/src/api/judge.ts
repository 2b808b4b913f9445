import { infiniteQueryOptions, queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, queryClient, type Schemas } from './client'
import { offerUndo } from './undo'
import { touched } from './touched'

export type Condition = Schemas['Condition']
export type GuideItem = Schemas['ConditionItem']
export type FindingView = Schemas['FindingView']
export type SurveyView = Schemas['SurveyView']
export type SeenFinding = Schemas['ObservedFinding']
export type FindingFields = Schemas['FindingInput']
export type Severity = SeenFinding['severity']
export type Measurement = Schemas['Measurement']
export type MeasurementInput = Schemas['MeasurementInput']
export type Quantity = Measurement['quantity']
export type Adjuster = Schemas['Adjuster']
export type Risk = Schemas['Risk']
export type OwnClass = Schemas['OwnClass']

const conditionKey = ['condition']
const measurementsKey = ['measurements']
const risksKey = ['risks']

export const conditionQuery = (machineId: number) =>
  queryOptions({ queryKey: [...conditionKey, machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/condition', { params: { path: { id: machineId } } })) })

/** What was found, measured and looked at hangs together with the reckoning and the ranking. */
function judged() {
  touched('judgement')
}

function told(machineId: number) {
  return (condition: Condition) => {
    queryClient.setQueryData(conditionQuery(machineId).queryKey, condition)
    judged()
  }
}

export function useStartSurvey(machineId: number) {
  return useMutation({
    mutationFn: (body: Schemas['NewSurvey']) =>
      ask(api.POST('/api/machines/{id}/surveys', { params: { path: { id: machineId } }, body })),
    onSuccess: told(machineId),
  })
}

export function useJudgeItem(machineId: number, surveyId: number) {
  return useMutation({
    mutationFn: ({ subsystem, ...body }: Schemas['JudgedSubsystem'] & { subsystem: string }) =>
      ask(api.PUT('/api/surveys/{id}/subsystems/{subsystem}', { params: { path: { id: surveyId, subsystem } }, body })),
    onSuccess: told(machineId),
    onError: judged, // somebody may have looked at another part meanwhile
  })
}

export function useEndSurvey(machineId: number) {
  return useMutation({
    mutationFn: ({ id, ...body }: Schemas['EndedSurvey'] & { id: number }) =>
      ask(api.POST('/api/surveys/{id}/end', { params: { path: { id } }, body })),
    onSuccess: told(machineId),
    onError: judged,
  })
}

/** What a finding is on: a machine, or a board that is in none. */
export type FoundOn = { machine: number } | { assembly: number }

export function useNoteFinding(on: FoundOn) {
  return useMutation<unknown, Error, Schemas['NotedFinding']>({
    mutationFn: (body) => 'machine' in on
      ? ask(api.POST('/api/machines/{id}/findings', { params: { path: { id: on.machine } }, body }))
      : ask(api.POST('/api/assemblies/{id}/findings', { params: { path: { id: on.assembly } }, body })),
    onSuccess: (after) => {
      if ('machine' in on) told(on.machine)(after as Condition)
      else judged()
    },
  })
}

export type BoardCondition = Schemas['BoardCondition']

export const boardConditionQuery = (assemblyId: number) =>
  queryOptions({ queryKey: [...conditionKey, 'board', assemblyId], queryFn: () =>
    ask(api.GET('/api/assemblies/{id}/condition', { params: { path: { id: assemblyId } } })) })

export function useVoidFinding() {
  return useMutation({
    mutationFn: ({ id, version }: FindingView) =>
      ask(api.POST('/api/findings/{id}/void', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { kind, where }) => {
      judged()
      offerUndo({ event, words: `The finding ${kind}, ${where}, is deleted.` })
    },
  })
}

export const measurementsQuery = (machineId: number) =>
  queryOptions({ queryKey: [...measurementsKey, machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/measurements', { params: { path: { id: machineId } } })) })

export function useMeasure(machineId: number) {
  return useMutation({
    mutationFn: (body: MeasurementInput) =>
      ask(api.POST('/api/machines/{id}/measurements', { params: { path: { id: machineId } }, body })),
    onSuccess: ({ event, point, judged: { inWords, verdict } }, { line }) => {
      judged()
      if (line) offerUndo({ event, words: `${point} ${inWords}: ${verdict}.` })
    },
  })
}

export function useTakeReading() {
  return useMutation({ mutationFn: (id: number) =>
    ask(api.POST('/api/measurements/{id}/take', { params: { path: { id } } })), onSettled: judged })
}

export function useAddReading() {
  return useMutation({
    mutationFn: ({ id, value }: { id: number; value: number }) =>
      ask(api.POST('/api/measurements/{id}/readings', { params: { path: { id } }, body: { value } })),
    onSuccess: judged,
  })
}

export function useDropReading() {
  return useMutation({
    mutationFn: ({ id, version }: Measurement) =>
      ask(api.POST('/api/measurements/{id}/drop', { params: { path: { id }, query: { version } } })),
    onSuccess: judged,
  })
}

export function useVoidMeasurement() {
  return useMutation({
    mutationFn: ({ id, version }: Measurement) =>
      ask(api.POST('/api/measurements/{id}/void', { params: { path: { id }, query: { version } } })),
    onSuccess: ({ event }, { point }) => {
      judged()
      offerUndo({ event, words: `The measurement of ${point} is deleted.` })
    },
  })
}

export const meterQuery = queryOptions({ queryKey: ['meter'], queryFn: () =>
  ask(api.GET('/api/meter')), staleTime: 60_000 })

export function useTouchPoint() {
  return useMutation({
    scope: { id: 'stand-in meter' }, // told in order, as the reader
    mutationFn: (body: Schemas['TouchedPoint']) => ask(api.POST('/api/meter/stand-in', { body })),
    onSettled: () => queryClient.invalidateQueries(meterQuery),
  })
}

export const adjustersQuery = (machineId: number) =>
  queryOptions({ queryKey: ['adjusters', machineId], queryFn: () =>
    ask(api.GET('/api/machines/{id}/adjusters', { params: { path: { id: machineId } } })) })

const adjusted = (machineId: number) =>
  (all: Adjuster[]) => { queryClient.setQueryData(adjustersQuery(machineId).queryKey, all) }

export function useNoteAdjuster(machineId: number) {
  return useMutation({
    mutationFn: (body: Schemas['AdjusterInput']) =>
      ask(api.POST('/api/machines/{id}/adjusters', { params: { path: { id: machineId } }, body })),
    onSuccess: adjusted(machineId),
  })
}

export function useTurnAdjuster(machineId: number) {
  return useMutation({
    mutationFn: ({ id, ...body }: Schemas['TurnedAdjuster'] & { id: number }) =>
      ask(api.POST('/api/adjusters/{id}/turns', { params: { path: { id } }, body })),
    onSuccess: adjusted(machineId),
  })
}

/** What ages in a machine; with 0 in the collection. */
export const risksQuery = (machine: number) =>
  infiniteQueryOptions({
    queryKey: [...risksKey, machine],
    queryFn: ({ pageParam: after }) =>
      ask(api.GET('/api/risks', { params: { query: { machine, after, limit: machine ? 100 : 50 } } })),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next || undefined,
  })

export const openingsQuery = (minutes: number) =>
  queryOptions({ queryKey: [...risksKey, 'openings', minutes], queryFn: () =>
    ask(api.GET('/api/openings', { params: { query: { minutes } } })) })

export const classesQuery = queryOptions({ queryKey: [...risksKey, 'classes'], queryFn: () =>
  ask(api.GET('/api/maintenance-classes')) })

export function useChangeClass() {
  return useMutation({ mutationFn: (body: Schemas['ChangedClass']) => ask(api.PUT('/api/maintenance-classes', { body })),
    onSuccess: judged })
}

export function useSayClimate() {
  return useMutation({
    mutationFn: (body: Schemas['PlaceClimate']) => ask(api.PUT('/api/climates', { body })),
    onSuccess: () => { touched('climate') },
  })
}
