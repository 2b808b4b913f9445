import styled from 'styled-components'

import { color, space } from '../theme'

/** Where bars stand that speak of what was just done, one above the other. */
export const Bars = styled.div`
  position: fixed;
  left: 50%;
  bottom: ${space(2)};
  z-index: 5;
  transform: translateX(-50%);
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: ${space(1)};
  width: max-content;
  max-width: calc(100vw - ${space(4)});
  @media print { display: none; }
`

export const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${space(1)} ${space(2)};
  max-width: 680px;
  padding: ${space(1)} ${space(2)};
  border: 1px solid ${color.slate};
  background: ${color.sheet};
  svg { vertical-align: -3px; }
`
