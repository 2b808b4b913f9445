import { useRef, useState } from 'react'

import { attachmentsChanged, type Owner, sendFile } from '../../api/attachments'
import { KeptForLater } from '../../api/problem'
import { standInFor } from '../../data/standIns'
import { Button } from '../../kit/Button'
import { NotSaved } from '../../kit/NotSaved'

/** Takes pictures from the camera, or from files, and tells them once they are kept. */
export function PhotoButton({ owner, label = 'Photo', isQuiet, onKept }: { owner: Owner; label?: string;
  isQuiet?: boolean; onKept: (ids: number[]) => void }) {
  const input = useRef<HTMLInputElement>(null)
  const [sending, setSending] = useState(0)
  const [error, setError] = useState<unknown>()
  const send = async (files: File[]) => {
    setError(undefined)
    setSending(files.length)
    const kept: number[] = []
    for (const file of files) {
      try {
        kept.push((await sendFile(owner, file, () => undefined)).id)
      } catch (wrong) {
        // Without a connection it waits here, and what cites it waits behind it.
        if (wrong instanceof KeptForLater) kept.push(standInFor(wrong.waiting))
        else setError(wrong)
      }
      setSending((left) => left - 1)
    }
    attachmentsChanged()
    if (kept.length > 0) onKept(kept)
  }
  return (
    <>
      <Button $small $tone={isQuiet ? 'quiet' : undefined} isPending={sending > 0} onPress={() =>
        input.current?.click()}>{sending > 0 ? 'On its way' : label}</Button>
      <input
        ref={input}
        type="file"
        hidden
        multiple
        accept="image/*"
        capture="environment"
        aria-label={label}
        onChange={(event) => {
          void send([...(event.target.files ?? [])])
          event.target.value = ''
        }}
      />
      <NotSaved error={error} />
    </>
  )
}
