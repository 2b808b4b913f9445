import styled from 'styled-components'

import { color, font, space } from '../theme'
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

/** Labels to cut out, each an item of a list with its name in bold. */
export const LabelPaper = styled(Paper)`
  ul { display: grid; grid-template-columns: repeat(auto-fill, 62mm); gap: 2mm; margin-top: 12px; }
  li { display: flex; flex-direction: column; min-height: 24mm; padding: 2mm; border: 1px solid ${color.ink};
    break-inside: avoid; overflow-wrap: anywhere; font-size: 13px; line-height: 1.3; }
  b { font: 700 20px ${font.mono}; }
`

/** What stands above a view for paper while it is on a screen. */
export const OnScreen = styled(Buttons)`
  margin-bottom: ${space(2)};
  gap: ${space(3)};
  @media print { display: none; }
`
