import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import styled from 'styled-components'

import { type Attachment, attachmentQuery, originalOf, type Owner, useVoidAttachment,
  viewOf } from '../../api/attachments'
import type { Region } from '../../api/dossier'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { Button, Buttons } from '../../kit/Button'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'
import { StatementForm } from '../../rooms/bench/evidence/StatementForm'
import { color, space } from '../../theme'
import { AttachmentForm } from './AttachmentForm'
import { MarkedPicture } from './MarkedPicture'
import { momentOf, Recording } from './Recording'
import type { Opened } from './region'

type Props = { opened: Opened; owner: Owner; among: number[]; onOpen: (opened: Opened | undefined) => void }

/** One picture at size: a part of it can be marked, by pointer or by arrow keys, and cited. */
export function PictureView({ opened, owner, among, onOpen }: Props) {
  const attachment = useQuery(attachmentQuery(opened.id))
  if (attachment.error) return <Notice tone="stop" word="Not read.">{messageOf(attachment.error)}</Notice>
  return attachment.data ? <Shown attachment={attachment.data} region={opened.region} from={opened.from} owner={owner}
    among={among}
    onOpen={onOpen} /> : null
}

function Shown({ attachment, region: start, from, owner, among, onOpen }: { attachment: Attachment;
  region: Region | undefined; from: number | undefined } & Omit<Props, 'opened'>) {
  const account = useAccount()
  const [region, setRegion] = useState(start)
  const [doing, setDoing] = useState<'citing' | 'editing'>()
  const frame = useRef<HTMLDivElement>(null)
  const [seconds, setSeconds] = useState(from ?? 0)
  const [moment, setMoment] = useState<string>()
  const panel = useRef<HTMLElement>(null)
  const voiding = useVoidAttachment()
  useEffect(() => {
    panel.current?.scrollIntoView({ block: 'nearest' })
    const first = frame.current ?? panel.current?.querySelector('button')
    first?.focus({ preventScroll: true })
  }, [])
  const at = among.indexOf(attachment.id)
  const isPicture = attachment.kind === 'picture'
  const isRecording = attachment.kind === 'recording'
  const mayCite = 'machine' in owner && (account?.mayWriteSheets ?? false)

  return (
    <Panel ref={panel} aria-label={`Picture ${attachment.caption || attachment.fileName}`}>
      <Buttons>
        <strong>{attachment.caption || attachment.view || attachment.fileName}</strong>
        <Faint>{[attachment.view, attachment.taken,
          isPicture && `${String(attachment.width)} x ${String(attachment.height)} pixels`,
            attachment.by && `by ${attachment.by}`].filter(Boolean).join(' · ')}</Faint>
        <Button $small isDisabled={at <= 0} onPress={() => { onOpen({ id: among[at - 1] ?? attachment.id }) }}>
          Before
        </Button>
        <Button $small isDisabled={at < 0 || at >= among.length - 1}
          onPress={() => { onOpen({ id: among[at + 1] ?? attachment.id }) }}>Next</Button>
        <Button $small onPress={() => { onOpen(undefined) }}>Close</Button>
      </Buttons>
      {isPicture && (
        <MarkedPicture id={attachment.id} alt={attachment.caption || attachment.view || attachment.fileName}
          region={region} onMark={setRegion} frame={frame} />
      )}
      {isRecording && <Recording attachment={attachment} from={from} onTime={setSeconds} />}
      <Buttons>
        {mayCite && isRecording && <Button $tone="main" $small onPress={() => {
          setMoment(momentOf(seconds))
          setDoing('citing')
        }}>Cite {momentOf(seconds)}</Button>}
        {mayCite && isPicture && <Button $tone="main" $small onPress={() => { setDoing('citing') }}>
          {region ? 'Cite the marked part' : 'Cite the picture'}
        </Button>}
        {mayCite && !isPicture && !isRecording && <Button $tone="main" $small onPress={() => { setDoing('citing') }}>
          Cite the document
        </Button>}
        {region && <Button $small onPress={() => { setRegion(undefined) }}>Take the mark off</Button>}
        {account?.mayWriteSheets && <Button $small onPress={() => { setDoing('editing') }}>Say what it shows</Button>}
        {isPicture && <a href={viewOf(attachment.id, 'full')} target="_blank" rel="noreferrer">all pixels</a>}
        {(account?.mayWriteSheets || !isPicture) && <a href={originalOf(attachment.id)} download>
          {isPicture ? 'the original (with what the camera wrote)' : 'the file'}
        </a>}
        {account?.mayWriteSheets && <Button $tone="quiet" isPending={voiding.isPending}
          onPress={() => { voiding.mutate(attachment, { onSuccess: () => { onOpen(undefined) } }) }}>Delete</Button>}
      </Buttons>
      {isPicture && mayCite && !region && <Faint>Drag over a part, as the serial number, to mark and cite it.</Faint>}
      {attachment.numbers && <Faint>Stands in it: {attachment.numbers.split('\n').join(', ')}</Faint>}
      {attachment.translation && <Translation>{attachment.translation}</Translation>}
      {voiding.error && <Notice tone="stop" word="Not deleted.">{messageOf(voiding.error)}</Notice>}
      {doing === 'citing' && 'machine' in owner && (
        <StatementForm
          key={`${JSON.stringify(region)} ${moment ?? ''}`}
          machineId={owner.machine}
          kind={isPicture ? 'label' : 'document'}
          cited={{ pictureId: attachment.id, region, page: moment }}
          onDone={() => { setDoing(undefined) }}
        />
      )}
      {doing === 'editing' && <AttachmentForm attachment={attachment} onDone={() => { setDoing(undefined) }} />}
    </Panel>
  )
}

const Panel = styled.section`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  padding: ${space(1)};
  border: 1px solid ${color.slate};
  background: ${color.sheet};
`
const Translation = styled.p`
  white-space: pre-line;
  padding-left: ${space(2)};
  border-left: 3px solid ${color.line};
`
