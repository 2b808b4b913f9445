import { queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'
import { touched } from './touched'
import { offerUndo } from './undo'

export type Setup = Schemas['Setup']
export type Configuration = Schemas['Configuration']
export type ConfigurationFields = Schemas['ConfigurationInput']
export type ConfiguredCard = Schemas['ConfiguredCard']
export type Meaning = Schemas['Meaning']
export type SetupDifference = Schemas['SetupDifference']
export type SlotPlan = Schemas['SlotPlan']
export type ThoughtMove = Schemas['ThoughtMove']
export type Backplane = Schemas['Backplane']
export type BackplaneFields = Omit<Schemas['ChangedBackplane'], 'version'>
export type OperatingCard = Schemas['OperatingCard']
export type OperatingFields = Omit<Schemas['ChangedOperatingCard'], 'version'>
export type Credential = Schemas['Credential']
export type CredentialFields = Omit<Schemas['NewCredential'], 'secret'>

const at = (id: number) => ({ params: { path: { id } } })

/** How a machine is set up, and was. */
export const setupQuery = (machineId: number) => queryOptions({ queryKey: ['setup', machineId], queryFn: () =>
  ask(api.GET('/api/machines/{id}/configurations', at(machineId))) })

/** What makes one configuration into another; 0 is how the machine is today. */
export const differenceQuery = (id: number, from: number, to: number) => queryOptions({
  queryKey: ['setup', id, 'difference', from, to], queryFn: () =>
    ask(api.GET('/api/machines/{id}/configurations/difference', { params: { path: { id }, query: { from, to } } })) })

/** What settings of a board mean while they are written. */
export const settingsQuery = (assemblyId: number, settings: string) => queryOptions({
  queryKey: ['setup', 'settings', assemblyId, settings], queryFn: () =>
    ask(api.POST('/api/settings/read', { body: { assemblyId, settings } })), placeholderData: (before) => before })

const changed = () => { touched('setup') }

export const useKeepConfiguration = (machineId: number) => useMutation({
  mutationFn: (body: ConfigurationFields) => ask(api.POST('/api/machines/{id}/configurations', { ...at(machineId), body })),
  onSuccess: changed })

export const useChangeConfiguration = (id: number) => useMutation({
  mutationFn: (body: Schemas['ChangedConfiguration']) => ask(api.PUT('/api/configurations/{id}', { ...at(id), body })),
  onSuccess: changed })

export const useVoidConfiguration = () => useMutation({
  mutationFn: ({ id, version }: Configuration) =>
    ask(api.POST('/api/configurations/{id}/void', { params: { path: { id }, query: { version } } })),
  onSuccess: ({ event }, { title }) => {
    changed()
    offerUndo({ event, words: `The configuration “${title}” is deleted.` })
  } })

/** What sits in which slot, with cards that are thought elsewhere. */
export const slotPlanQuery = (id: number, moves: ThoughtMove[]) => queryOptions({
  queryKey: ['slot plan', id, moves], queryFn: () =>
    ask(api.POST('/api/machines/{id}/slot-plan/read', { ...at(id), body: { moves } })),
  placeholderData: (before) => before })

export const useLayOutSlots = (machineId: number) => useMutation({
  mutationFn: (body: Schemas['ChangedBackplane']) => ask(api.PUT('/api/machines/{id}/backplane', { ...at(machineId), body })),
  onSuccess: changed })

/** Cards were moved as it was planned. */
export const useMovedCards = (machineId: number) => useMutation({
  mutationFn: (body: Schemas['MovedCards']) => ask(api.POST('/api/machines/{id}/slot-plan/moved', { ...at(machineId), body })),
  onSuccess: () => { touched('setup', 'board', 'move') } })

/** How a machine is operated. */
export const operatingQuery = (machineId: number) => queryOptions({ queryKey: ['operating card', machineId], queryFn: () =>
  ask(api.GET('/api/machines/{id}/operating-card', at(machineId))) })

/** What the lamps of a panel show while a procedure is written. */
export const panelQuery = (card: OperatingFields) => queryOptions({ queryKey: ['operating card', 'panel', card],
  queryFn: () => ask(api.POST('/api/panel/read', { body: card })), placeholderData: (before) => before, retry: false })

export const useWriteOperatingCard = (machineId: number) => useMutation({
  mutationFn: (body: Schemas['ChangedOperatingCard']) =>
    ask(api.PUT('/api/machines/{id}/operating-card', { ...at(machineId), body })),
  onSuccess: changed })

/** What one signs on with, without the secrets. */
export const credentialsQuery = (machineId: number) => queryOptions({ queryKey: ['credentials', machineId], queryFn: () =>
  ask(api.GET('/api/machines/{id}/credentials', at(machineId))) })

export const usePutCredentialAway = (machineId: number) => useMutation({
  mutationFn: (body: Schemas['NewCredential']) => ask(api.POST('/api/machines/{id}/credentials', { ...at(machineId), body })),
  onSuccess: changed, gcTime: 0 })

export const useChangeCredential = (id: number) => useMutation({
  mutationFn: (body: Schemas['ChangedCredential']) => ask(api.PUT('/api/credentials/{id}', { ...at(id), body })),
  onSuccess: changed, gcTime: 0 })

/** Shows a secret. Nothing keeps it but the page that asked. */
export const useSeeCredential = (id: number) => useMutation({
  mutationFn: () => ask(api.POST('/api/credentials/{id}/see', at(id))), gcTime: 0 })

export const useVoidCredential = () => useMutation({
  mutationFn: ({ id, version }: Credential) =>
    ask(api.POST('/api/credentials/{id}/void', { params: { path: { id }, query: { version } } })),
  onSuccess: ({ event }, { what }) => {
    changed()
    offerUndo({ event, words: `The credential “${what}” is deleted.` })
  } })

export type Population = Schemas['Population']
export type MemoryRules = Schemas['MemoryRules']
export type MemoryRulesFields = Omit<Schemas['ChangedMemoryRules'], 'version'>

/** Which memory stands in a machine, whether it may, and what could. */
export const populationQuery = (id: number, want: string) => queryOptions({ queryKey: ['population', id, want],
  queryFn: () => ask(api.GET('/api/machines/{id}/population', { params: { path: { id }, query: { want: want || undefined } } })),
  placeholderData: (before) => before, retry: false })

export const useWriteMemoryRules = (machineId: number) => useMutation({
  mutationFn: (body: Schemas['ChangedMemoryRules']) => ask(api.PUT('/api/machines/{id}/memory-rules', { ...at(machineId), body })),
  onSuccess: changed })
