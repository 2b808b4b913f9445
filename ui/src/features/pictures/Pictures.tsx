import { useInfiniteQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'

import { type Attachment, attachmentsQuery, originalOf, type Owner, viewOf } from '../../api/attachments'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { Button, Buttons } from '../../kit/Button'
import { Notice } from '../../kit/Notice'
import { Part } from '../../kit/Part'
import { color, font, space } from '../../theme'
import { PictureView } from './PictureView'
import type { Opened } from './region'
import { UploadArea } from './UploadArea'

type Props = { owner: Owner; opened?: Opened; onOpen?: (opened: Opened | undefined) => void }

/** Pictures and documents of a machine or a lot, in the order in which they came. */
export function Pictures({ owner, opened, onOpen }: Props) {
  const attachments = useInfiniteQuery(attachmentsQuery(owner))
  const mayAdd = useAccount()?.mayWriteSheets ?? false
  const [here, setHere] = useState<Opened>()
  const shown = onOpen ? opened : here
  const open = onOpen ?? setHere
  const all = attachments.data?.pages.flatMap((page) => page.attachments) ?? []
  const pictures = all.filter(({ kind }) => kind === 'picture')
  const documents = all.filter(({ kind }) => kind !== 'picture')
  return (
    <Part title="Pictures and documents"
      faint={all.length > 0 ? `${String(all.length)}${attachments.hasNextPage ? ' and more' : ''}` : undefined}>
      {mayAdd && <UploadArea owner={owner} />}
      {attachments.error && <Notice tone="stop" word="Not listed.">{messageOf(attachments.error)}</Notice>}
      {attachments.data && all.length === 0 && <p>There are none yet.</p>}
      {shown && <PictureView key={`${String(shown.id)} ${JSON.stringify(shown.region)}`} opened={shown} owner={owner}
        among={all.map(({ id }) => id)} onOpen={open} />}
      <Grid aria-label="Pictures">
        {pictures.map((one) => (
          <li key={one.id}>
            <Thumb onPress={() => { open({ id: one.id }) }} aria-label={`Open ${inWords(one)}`}>
              <img src={viewOf(one.id, 'thumb')} alt="" loading="lazy" width={160} height={120} />
              <span>{inWords(one)}</span>
            </Thumb>
          </li>
        ))}
      </Grid>
      {documents.length > 0 && (
        <Documents aria-label="Documents, video and sound">
          {documents.map((one) => (
            <li key={one.id}>
              <a href={originalOf(one.id)} download>
                {nameOf(one)}
              </a> {[one.language, one.taken, one.address, one.captured && `captured ${one.captured}`,
                one.staffOnly && 'for staff only'].filter(Boolean).join(', ')}{' '}
              <Button $tone="quiet"
                aria-label={`${one.kind === 'recording' ? 'Play' : 'About'} ${nameOf(one)}`} onPress={() => { open({ id: one.id }) }}>
                {one.kind === 'recording' ? 'Play' : 'About'}
              </Button>
            </li>
          ))}
        </Documents>
      )}
      {attachments.hasNextPage && <Buttons>
        <Button onPress={() => void attachments.fetchNextPage()} isPending={attachments.isFetchingNextPage}>
          Show more
        </Button>
      </Buttons>}
    </Part>
  )
}

const inWords = (one: Attachment) =>
  `${nameOf(one)}${one.staffOnly ? ' (staff)' : ''}${one.cited > 0 ? `, cited ${String(one.cited)}x` : ''}`
const nameOf = ({ caption, view, fileName }: Attachment) => caption || view || fileName

const Grid = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
  gap: ${space(1)};
`
const Thumb = styled(Button)`
  && {
    display: flex;
    flex-direction: column;
    gap: 4px;
    width: 100%;
    padding: 4px;
    border: 1px solid ${color.line};
    background: ${color.sheet};
    text-align: left;
    white-space: normal;
    font-size: 13px;
    line-height: 1.3;
    overflow-wrap: anywhere;
  }
  img { width: 100%; height: 104px; object-fit: contain; background: ${color.paper}; }
`
const Documents = styled.ul`
  li { padding: 2px 0; overflow-wrap: anywhere; font-size: 15px; }
  a { font-family: ${font.mono}; font-size: 14px; }
`
