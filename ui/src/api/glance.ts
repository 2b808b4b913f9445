import { queryOptions } from '@tanstack/react-query'

import { api, ask, type Schemas } from './client'

export type Glance = Schemas['Glance']
export type GlanceUnit = Schemas['GlanceUnit']

/** A machine on one page. It is read anew each time it is opened: nearly every deed changes something of it. */
export const glanceQuery = (machineId: number) =>
  queryOptions({ queryKey: ['glance', machineId], staleTime: 0, queryFn: () =>
    ask(api.GET('/api/machines/{id}/glance', { params: { path: { id: machineId } } })) })
