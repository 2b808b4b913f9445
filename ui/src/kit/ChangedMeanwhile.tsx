import type { ReactNode } from 'react'

import { Button, Buttons } from './Button'
import { Notice } from './Notice'

type Props = { children: ReactNode; onGoOn: () => void; onDrop: () => void }

/** Somebody else changed the record while it was being edited: what theirs says, and the choice. */
export function ChangedMeanwhile({ children, onGoOn, onDrop }: Props) {
  return (
    <Notice tone="attention" word="Changed meanwhile.">
      Somebody else changed this while you edited; nothing was overwritten. Theirs differs in:
      {children}
      <Buttons>
        <Button onPress={onGoOn}>Go on with mine over theirs</Button>
        <Button onPress={onDrop}>Drop mine</Button>
      </Buttons>
    </Notice>
  )
}

/** Lists the fields in which two records differ, with what theirs says. */
export function Differences<Fields extends object>({ names, mine, theirs }: {
  names: Partial<Record<keyof Fields, string>>
  mine: Fields
  theirs: Fields
}) {
  const fields = (Object.keys(names) as (keyof Fields)[]).filter((field) => mine[field] !== theirs[field])
  return (
    <ul>
      {fields.map((field) => (
        <li key={String(field)}>{names[field]}: {String(theirs[field] ?? '') || 'nothing'}</li>
      ))}
    </ul>
  )
}
