import styled from 'styled-components'

import { color } from '../../theme'

/** Small pictures in a row. */
export const Thumbs = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  &:empty { display: none; }
  img { display: block; object-fit: contain; border: 1px solid ${color.line}; background: ${color.paper}; }
`
