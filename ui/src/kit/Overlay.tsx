import { Dialog, ModalOverlay } from 'react-aria-components'
import styled from 'styled-components'

import { color, radius, space } from '../theme'

/** What lies over the page while something has to be answered or read first. */
export const Overlay = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 10;
  display: grid;
  place-items: center;
  padding: ${space(2)};
  background: rgb(20 25 28 / 45%);
`
export const OverlayPanel = styled(Dialog)`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  min-width: min(400px, 88vw);
  max-height: 88vh;
  overflow: auto;
  padding: ${space(3)};
  border: 1px solid ${color.line};
  border-radius: ${radius};
  background: ${color.sheet};
  outline: none;
`
