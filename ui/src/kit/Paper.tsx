import styled from 'styled-components'

import { color, space } from '../theme'
import { Buttons } from './Button'

/** A view that is made for paper. */
export const Paper = styled.main`
  max-width: 860px;
  margin: 0 auto;
  padding: ${space(3)};
  background: ${color.sheet};
  h1 { font-size: 24px; }
  h2 { margin-top: ${space(3)}; font-size: 18px; break-after: avoid; }
  @media print { max-width: none; padding: 0; font-size: 11pt; background: none; }
`

/** What stands above a view for paper while it is on a screen. */
export const OnScreen = styled(Buttons)`
  margin-bottom: ${space(2)};
  gap: ${space(3)};
  @media print { display: none; }
`
