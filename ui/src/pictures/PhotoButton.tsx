import { useRef, useState } from 'react'

import { type Attachment, attachmentsChanged, type Owner, sendFile } from '../api/attachments'
import { messageOf } from '../api/problem'
import { Button } from '../kit/Button'
import { Notice } from '../kit/Notice'

/** Takes pictures from the camera, or from files, and tells each once it is kept. */
export function PhotoButton({ owner, label = 'Photo', isQuiet, onKept }: { owner: Owner; label?: string; isQuiet?: boolean; onKept: (kept: Attachment) => void }) {
  const input = useRef<HTMLInputElement>(null)
  const [sending, setSending] = useState(0)
  const [error, setError] = useState<unknown>()
  const send = async (files: File[]) => {
    setError(undefined)
    setSending(files.length)
    for (const file of files) {
      try {
        onKept(await sendFile(owner, file, () => undefined))
      } catch (wrong) {
        setError(wrong)
      }
      setSending((left) => left - 1)
    }
    attachmentsChanged()
  }
  return (
    <>
      <Button $small $tone={isQuiet ? 'quiet' : undefined} isPending={sending > 0} onPress={() => input.current?.click()}>{sending > 0 ? 'On its way' : label}</Button>
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
      {error !== undefined && <Notice tone="stop" word="Not kept.">{messageOf(error as Error)}</Notice>}
    </>
  )
}
