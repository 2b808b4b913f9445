import { type ReactNode, useEffect, useEffectEvent, useState } from 'react'

import { Field } from './Field'
import { PageHead, Title } from './Page'

type Props = { title: string; label: string; words: string; maxLength?: number; mono?: boolean;
  onWords: (words: string) => void; children?: ReactNode }

/** How long one may go on typing before the list follows, in milliseconds. */
const pause = 180

/** The head of a room that is a list: its title, the words that filter it when typing pauses, its main action. */
export function ListHead({ title, label, words, maxLength = 200, mono, onWords, children }: Props) {
  // What stands here and has not been told yet; the address may change from elsewhere, too.
  const [typed, setTyped] = useState<string>()
  const tell = useEffectEvent((text: string) => {
    onWords(text)
    setTyped(undefined)
  })
  useEffect(() => {
    if (typed === undefined) return
    const timer = setTimeout(() => { tell(typed) }, pause)
    return () => { clearTimeout(timer) }
  }, [typed])
  return (
    <PageHead>
      <Title>{title}</Title>
      <Field label={label} value={typed ?? words} onChange={setTyped} type="search" maxLength={maxLength} mono={mono} />
      {children}
    </PageHead>
  )
}
