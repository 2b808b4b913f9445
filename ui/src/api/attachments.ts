import { infiniteQueryOptions, queryOptions, useMutation } from '@tanstack/react-query'

import { api, ask, historyChanged, type Schemas } from './client'
import { offerUndo } from './undo'
import { upload } from './upload'
import { touched } from './touched'

export type Attachment = Schemas['Attachment']
export type AttachmentFields = Omit<Schemas['ChangedAttachment'], 'version'>

/** What pictures and documents belong to. */
export type Owner = { machine: number } | { lot: number } | { stock: number } | { offer: number }

const attachmentsKey = ['attachments']

function page(owner: Owner, after: number, limit?: number) {
  const query = { after, limit }
  if ('machine' in owner)
    return ask(api.GET('/api/machines/{id}/attachments', { params: { path: { id: owner.machine }, query } }))
  if ('lot' in owner) return ask(api.GET('/api/lots/{id}/attachments', { params: { path: { id: owner.lot }, query } }))
  if ('stock' in owner)
    return ask(api.GET('/api/stock/{id}/attachments', { params: { path: { id: owner.stock }, query } }))
  return ask(api.GET('/api/offers/{id}/attachments', { params: { path: { id: owner.offer }, query } }))
}

const rooms = { machine: 'machines', lot: 'lots', stock: 'stock', offer: 'offers' } as const

/** Where what belongs to an owner is sent to. */
function addressOf(owner: Owner) {
  const [kind, id] = Object.entries(owner)[0] as [keyof typeof rooms, number]
  return `/api/${rooms[kind]}/${String(id)}/attachments`
}

export const attachmentsQuery = (owner: Owner) =>
  infiniteQueryOptions({
    queryKey: [...attachmentsKey, owner],
    queryFn: ({ pageParam: after }) => page(owner, after),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next || undefined,
  })

/** The most that a page holds. */
const mostAtOnce = 200

/** What a statement can cite: the first pictures and documents of an owner. */
export const citableQuery = (owner: Owner) =>
  queryOptions({ queryKey: [...attachmentsKey, 'citable', owner], queryFn: async () =>
    (await page(owner, 0, mostAtOnce)).attachments })

export const attachmentQuery = (id: number) =>
  queryOptions({
    queryKey: [...attachmentsKey, id],
    queryFn: () => ask(api.GET('/api/attachments/{id}', { params: { path: { id } } })),
  })

export const viewOf = (id: number, size: 'thumb' | 'screen' | 'full') =>
  `/api/attachments/${String(id)}/view?size=${size}`
export const originalOf = (id: number) => `/api/attachments/${String(id)}/original`

export function attachmentsChanged() {
  historyChanged()
  touched('evidence')
}

/** Sends one picture or document. */
export function sendFile(owner: Owner, file: File, onProgress: (part: number) => void): Promise<Attachment> {
  return upload(`${addressOf(owner)}?name=${encodeURIComponent(file.name)}`, file, onProgress)
}

export function useChangeAttachment(id: number) {
  return useMutation({
    mutationFn: (body: AttachmentFields & { version: number }) =>
      ask(api.PUT('/api/attachments/{id}', { params: { path: { id } }, body })),
    onSuccess: attachmentsChanged,
  })
}

export function useVoidAttachment() {
  return useMutation({
    mutationFn: ({ id, version }: Attachment) =>
      ask(api.POST('/api/attachments/{id}/void', { params: { path: { id } }, body: { version } })),
    onSuccess: ({ event }, { fileName }) => {
      attachmentsChanged()
      offerUndo({ event, words: `${fileName} is deleted.` })
    },
  })
}
