import styled from 'styled-components'

import { viewOf } from '../../api/attachments'
import { color } from '../../theme'

/** The picture by which a machine is known, small; nothing where there is none. */
export function MachineThumb({ id, size = 32 }: { id: number; size?: number }) {
  return id > 0 ? <Thumb src={viewOf(id, 'thumb')} alt="" loading="lazy" width={size} height={size} /> : null
}

const Thumb = styled.img`
  flex: none;
  object-fit: cover;
  background: ${color.paper};
`
