import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { type Attachment, citableQuery } from '../../../api/attachments'
import { dossierQuery, type Region, type StatementFields, vocabularyQuery } from '../../../api/dossier'
import { Choice, Field, FieldGrid } from '../../../kit/Field'
import { textOf } from '../../../kit/RecordForm'

export type SourceKind = StatementFields['kind']
/** A picture or document that a statement cites, and the part of it. */
export type Cited = { pictureId: number; region: Region | undefined; page?: string }

type Props = { machineId: number; kind: SourceKind; onKind: (kind: SourceKind) => void;
  start?: Partial<StatementFields>; cited?: Cited }

/** Where a statement comes from. */
export function CitationFields({ machineId, kind, onKind, start, cited }: Props) {
  const vocabulary = useQuery(vocabularyQuery)
  const pictures = useCitable(machineId)
  const [picture, setPicture] = useState(String(cited?.pictureId ?? ''))
  const kinds = (vocabulary.data?.kinds ?? []).map((one) => ({ value: one.kind as SourceKind,
    text: `${one.kind}: ${one.words}` }))
  const offered = pictures.map((one) => ({ value: String(one.id), text: `${one.kind} ${one.caption || one.fileName}` }))
  // What is cited stays, though it may be none of those offered.
  if (picture !== '' && !offered.some(({ value }) => value === picture))
    offered.unshift({ value: picture, text: 'the one cited' })
  return (
    <FieldGrid>
      <Choice label="Source" value={kind} options={kinds} onChange={onKind} />
      {offered.length > 0 && <Choice label="Picture or document" name="picture" value={picture}
        options={[{ value: '', text: 'none' }, ...offered]} onChange={setPicture} />}
      <Field label="Which one, in words" name="cited" defaultValue={start?.cited ?? ''}
        placeholder={cited ? 'the picture' : 'rating plate on the rear'} />
      <Field label="Page, or moment of a recording" name="page" defaultValue={start?.page ?? cited?.page ?? ''}
        placeholder="12, or 1:05" />
      <Field label="Said or seen on" name="statedOn" defaultValue={start?.statedOn ?? ''} placeholder="2026-11-25" mono />
      <Field label="Address" name="link" defaultValue={start?.link ?? ''} hint="Kept as text" mono />
    </FieldGrid>
  )
}

/** The pictures and documents of a machine and of the lot that it came with. */
function useCitable(machineId: number): Attachment[] {
  const lot = useQuery(dossierQuery(machineId)).data?.arrival.lot
  const own = useQuery(citableQuery({ machine: machineId }))
  const ofLot = useQuery({ ...citableQuery({ lot: lot?.id ?? 0 }), enabled: Boolean(lot) })
  return [...(own.data ?? []), ...(ofLot.data ?? [])]
}

/** Reads what the fields hold. A part of a picture is cited as long as the picture is. */
export function readCitation(form: FormData, kind: SourceKind, cited?: Cited) {
  const text = (name: string) => textOf(form, name)
  const pictureId = Number(text('picture')) || null
  return {
    kind, cited: text('cited'), page: text('page'), statedOn: text('statedOn'), link: text('link'),
    pictureId, region: pictureId === cited?.pictureId ? cited?.region : undefined,
  }
}
