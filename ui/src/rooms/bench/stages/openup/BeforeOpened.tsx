import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import styled from 'styled-components'

import { type Attachment, attachmentsQuery, viewOf } from '../../../../api/attachments'
import { openedUpQuery } from '../../../../api/openup'
import { Button } from '../../../../kit/Button'
import { Faint } from '../../../../kit/Page'
import { color, space } from '../../../../theme'

/** So many pictures are offered. */
const most = 8

/** Pictures of the machine from before it was opened, the nearest first: how a connector sat is often on one. */
export function BeforeOpened({ machineId, chosen, onChoose }: { machineId: number; chosen: number | null | undefined;
  onChoose: (id: number) => void }) {
  const pages = useInfiniteQuery(attachmentsQuery({ machine: machineId })).data?.pages ?? []
  const opened = useQuery(openedUpQuery(machineId)).data?.now?.startedAt
  const pictures = before(pages.flatMap((page) => page.attachments), opened).slice(0, most)
  if (pictures.length === 0) return null
  return (
    <div>
      <Faint>{opened ? 'From before it was opened, the nearest first:' : 'Pictures of it, the newest first:'}</Faint>
      <Row>
        {pictures.map((one) => (
          <li key={one.id}>
            <Tap aria-pressed={one.id === chosen} 
              aria-label={`${one.taken || one.at.slice(0, 10)}: it sat as on ${one.caption || one.view || one.fileName}`}
              onPress={() => { onChoose(one.id) }}>
              <img src={viewOf(one.id, 'thumb')} alt="" width={96} height={72} loading="lazy" />
              <span>{one.taken || one.at.slice(0, 10)}</span>
            </Tap>
          </li>
        ))}
      </Row>
    </div>
  )
}

/** Pictures that were taken, or else came, before a moment; the nearest to it first. */
export function before(attachments: Attachment[], moment: string | undefined): Attachment[] {
  const when = ({ taken, at }: Attachment) => /^\d{4}-\d\d-\d\d$/.test(taken ?? '') ? `${taken ?? ''}T12:00:00Z` : at
  return attachments.filter((one) => one.kind === 'picture' && (!moment || when(one) <= moment))
    .sort((a, b) => when(b).localeCompare(when(a)))
}

const Row = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(1)};
`
const Tap = styled(Button)`
  && { flex-direction: column; padding: 4px; border: 1px solid ${color.line}; font-size: 13px; }
  &&[aria-pressed='true'] { border: 2px solid ${color.slate}; padding: 3px; }
  img { object-fit: cover; display: block; }
`
