import { useQuery } from '@tanstack/react-query'

import { type Region, type StatementFields, vocabularyQuery } from '../../../api/dossier'
import { Choice, Field, FieldGrid } from '../../../kit/Field'
import { textOf } from '../../../kit/RecordForm'

export type SourceKind = StatementFields['kind']
/** A part of a picture that a statement cites. */
export type Cited = { pictureId: number; region: Region | undefined }

type Props = { kind: SourceKind; onKind: (kind: SourceKind) => void; start?: Partial<StatementFields>; cited?: Cited }

/** Where a statement comes from. */
export function CitationFields({ kind, onKind, start, cited }: Props) {
  const vocabulary = useQuery(vocabularyQuery)
  const kinds = (vocabulary.data?.kinds ?? []).map((one) => ({ value: one.kind as SourceKind, text: `${one.kind}: ${one.words}` }))
  return (
    <FieldGrid>
      <Choice label="Source" value={kind} options={kinds} onChange={onKind} />
      <Field label="Which one, in words" name="cited" defaultValue={start?.cited ?? ''} placeholder={cited ? 'the picture' : 'rating plate on the rear'} />
      <Field label="Page" name="page" defaultValue={start?.page ?? ''} />
      <Field label="Said or seen on" name="saidOn" defaultValue={start?.saidOn ?? ''} placeholder="2026-11-25" mono />
      <Field label="Address" name="link" defaultValue={start?.link ?? ''} hint="Kept as text" mono />
    </FieldGrid>
  )
}

/** Reads what the fields hold. */
export function readCitation(form: FormData, kind: SourceKind, cited?: Cited) {
  const text = (name: string) => textOf(form, name)
  return {
    kind, cited: text('cited'), page: text('page'), saidOn: text('saidOn'), link: text('link'),
    pictureId: cited?.pictureId ?? null, region: cited?.region,
  }
}
