import styled from 'styled-components'

import { ListTable } from '../../kit/ListTable'

/** A table of evidence beside explanations: what one sees has room, and the names of explanations wrap. */
export const EvidenceTable = styled(ListTable)`
  && th { min-width: 110px; white-space: normal; }
  && td:first-child { min-width: 220px; }
  select { min-width: 96px; }
`
