import type { ReactNode } from 'react'

import { Field } from './Field'
import { PageHead, Title } from './Page'

type Props = { title: string; label: string; words: string; maxLength?: number; mono?: boolean;
  onWords: (words: string) => void; children?: ReactNode }

/** The head of a room that is a list: its title, the words that filter it as they are typed, its main action. */
export function ListHead({ title, label, words, maxLength = 200, mono, onWords, children }: Props) {
  return (
    <PageHead>
      <Title>{title}</Title>
      <Field label={label} value={words} onChange={onWords} type="search" maxLength={maxLength} mono={mono} />
      {children}
    </PageHead>
  )
}
