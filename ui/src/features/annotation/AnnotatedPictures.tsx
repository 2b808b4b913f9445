import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'

import { attachmentsQuery, viewOf } from '../../api/attachments'
import { annotatedPicturesQuery } from '../../api/annotations'
import { useAccount } from '../../api/session'
import { Part } from '../../kit/Part'
import { color, space } from '../../theme'

/** The pictures of a machine that have numbers on them, and those that could have. */
export function AnnotatedPictures({ machineId }: { machineId: number }) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const plans = useQuery(annotatedPicturesQuery(machineId))
  const attachments = useInfiniteQuery(attachmentsQuery({ machine: machineId }))
  const planned = plans.data ?? []
  const others = (attachments.data?.pages ?? []).flatMap((page) => page.attachments).filter(({ id, kind }) =>
    kind === 'picture' && !planned.some((one) => one.attachmentId === id))
  const to = (id: number) => `/bench/${String(machineId)}/board-picture/${String(id)}`
  return (
    <Part title="Board pictures" faint={planned.length > 0 && `${String(planned.length)} with numbers`}>
      <Row>
        {planned.map((one) => (
          <li key={one.attachmentId}>
            <Link to={to(one.attachmentId)}><img src={viewOf(one.attachmentId, 'thumb')} alt="" width={160}
              loading="lazy" /><br />{one.assembly}: {one.caption}, {one.callouts} numbers</Link>
          </li>
        ))}
      </Row>
      {mayWrite && others.length > 0 && (
        <details open={planned.length === 0}>
          <summary>Number the parts on another picture</summary>
          <Row>
            {others.map((one) => (
              <li key={one.id}><Link to={to(one.id)}><img src={viewOf(one.id, 'thumb')} alt="" width={160}
                loading="lazy" /><br />{one.caption || one.view || one.fileName}</Link></li>
            ))}
          </Row>
        </details>
      )}
      {attachments.data && planned.length === 0 && others.length === 0 && <p>There is no picture yet: add one of a
        board in <Link to={`/bench/${String(machineId)}/look-over`}>Look over</Link>.</p>}
    </Part>
  )
}

const Row = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(2)};
  li { width: 168px; font-size: 14px; }
  img { border: 1px solid ${color.line}; }
`
