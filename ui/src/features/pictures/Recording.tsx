import { type SyntheticEvent, useEffect, useState } from 'react'
import styled from 'styled-components'

import { type Attachment, originalOf } from '../../api/attachments'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'

/** A moment of a recording, as 1:05. */
export function momentOf(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds))
  return `${String(Math.floor(whole / 60))}:${String(whole % 60).padStart(2, '0')}`
}

/** The second that a citation names, as its page says it; undefined for none. */
export function secondOf(page: string): number | undefined {
  const [, minutes, seconds] = /^(\d{1,3}):([0-5]\d)$/.exec(page.trim()) ?? []
  return minutes && seconds ? Number(minutes) * 60 + Number(seconds) : undefined
}

/** Plays video or sound, from a moment on if one is cited. It is fetched whole, so that any moment can be gone to. */
export function Recording({ attachment, from, onTime }: { attachment: Attachment; from?: number;
  onTime: (seconds: number) => void }) {
  const [source, setSource] = useState<string>()
  const [trouble, setTrouble] = useState('')
  useEffect(() => {
    const stop = new AbortController()
    let made: string | undefined
    void fetch(originalOf(attachment.id), { signal: stop.signal }).then(async (answer) => {
      if (!answer.ok) throw new Error(`The server answered with status ${String(answer.status)}.`)
      made = URL.createObjectURL(await answer.blob())
      setSource(made)
    }).catch((error: unknown) => { if (!stop.signal.aborted) setTrouble(String(error)) })
    return () => {
      stop.abort()
      if (made) URL.revokeObjectURL(made)
    }
  }, [attachment.id])
  if (trouble) return <Notice tone="stop" word="Not read.">{trouble}</Notice>
  if (!source) return <Faint role="status">It is fetched.</Faint>
  const common = {
    src: source, controls: true, 'aria-label': attachment.caption || attachment.fileName,
    onLoadedMetadata: ({ currentTarget }: SyntheticEvent<HTMLMediaElement>) => {
      if (from !== undefined) currentTarget.currentTime = from
    },
    onTimeUpdate: ({ currentTarget }: SyntheticEvent<HTMLMediaElement>) => { onTime(currentTarget.currentTime) },
    onError: () => { setTrouble('This browser does not play it; save the file.') },
  }
  return attachment.mediaType.startsWith('video/') ? <Video {...common} /> : <Sound {...common} />
}

const Video = styled.video`
  width: 100%;
  max-height: 60vh;
  background: black;
`
const Sound = styled.audio`
  width: 100%;
`
