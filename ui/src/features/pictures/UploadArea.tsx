import { useEffect, useEffectEvent, useRef, useState } from 'react'
import styled from 'styled-components'

import type { Owner } from '../../api/attachments'
import { Button, Buttons } from '../../kit/Button'
import { Mark } from '../../kit/Mark'
import { color, space } from '../../theme'
import { useUploads } from './useUploads'

/** Takes pictures and documents by drag, paste, choice or camera, many at once, and tells how far each is. */
export function UploadArea({ owner }: { owner: Owner }) {
  const { uploads, send, again, clear } = useUploads(owner)
  const [over, setOver] = useState(false)
  const choose = useRef<HTMLInputElement>(null)
  const camera = useRef<HTMLInputElement>(null)
  const pasted = useEffectEvent((event: ClipboardEvent) => {
    const files = [...(event.clipboardData?.files ?? [])]
    if (files.length === 0) return
    event.preventDefault()
    send(files)
  })
  useEffect(() => {
    const listen = (event: ClipboardEvent) => { pasted(event) }
    document.addEventListener('paste', listen)
    return () => { document.removeEventListener('paste', listen) }
  }, [])
  const take = (input: HTMLInputElement) => {
    send([...(input.files ?? [])])
    input.value = ''
  }
  const count = (state: string) => uploads.filter((one) => one.state === state).length
  const [kept, refused] = [count('kept'), count('refused')]
  const left = uploads.length - kept - refused
  return (
    <Area
      data-over={over || undefined}
      onDragOver={(event) => { event.preventDefault(); setOver(true) }}
      onDragLeave={() => { setOver(false) }}
      onDrop={(event) => {
        event.preventDefault()
        setOver(false)
        send([...event.dataTransfer.files])
      }}
    >
      <Buttons>
        <Button $small onPress={() => choose.current?.click()}>Add pictures or documents</Button>
        <Button $small onPress={() => camera.current?.click()}>Take a picture</Button>
        <span>or drop or paste them here: JPEG, PNG, WebP, HEIC, PDF, text, up to 64 MB each</span>
      </Buttons>
      <input ref={choose} type="file" multiple hidden aria-label="Files to add"
        accept="image/jpeg,image/png,image/webp,image/heic,application/pdf,text/plain,video/*,audio/*"
          onChange={(event) => { take(event.target) }} />
      <input ref={camera} type="file" hidden aria-label="Picture from the camera" accept="image/*"
        capture="environment" onChange={(event) => { take(event.target) }} />
      {uploads.length > 0 && (
        <div role="status">
          {left > 0 && <Bar max={uploads.length}
            value={uploads.reduce((sum,
              one) => sum + (one.state === 'sending' ? one.part * 0.95 : one.state === 'waiting' ? 0 : 1), 0)}
                aria-label="Sent so far" />}
          <p>
            {kept} of {uploads.length} kept{left > 0 && `, ${String(left)} on their way`}
              {refused > 0 && `, ${String(refused)} not kept`}{' '}
            {left === 0 && <Button $tone="quiet" onPress={clear}>Clear the list</Button>}
            {refused > 0 && left === 0 && <Button $tone="quiet" onPress={again}>Send what was not kept again</Button>}
          </p>
        </div>
      )}
      {uploads.filter(({ state }) => state === 'refused').map((one) => (
        <Refused key={one.key}><Mark kind="problem" /> <strong>{one.name}</strong> {one.why}</Refused>
      ))}
    </Area>
  )
}

const Area = styled.div`
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding: ${space(1)};
  border: 1px dashed ${color.edge};
  color: ${color.faint};
  &[data-over] { border-color: ${color.slate}; background: ${color.slateGround}; }
`
const Bar = styled.progress`
  width: 100%;
  accent-color: ${color.slate};
`
const Refused = styled.p`
  color: ${color.rust};
  overflow-wrap: anywhere;
  svg { vertical-align: -3px; }
`
