import styled from 'styled-components'

import { color, space } from '../theme'

/** A room's page: heading, then what it holds. */
export const Page = styled.main`
  padding: ${space(2)} ${space(3)} ${space(4)};
  display: flex;
  flex-direction: column;
  gap: ${space(2)};
  min-width: 0;

  @media (max-width: 600px) { padding: ${space(2)}; }
`

export const Title = styled.h1`
  font-size: 24px;
`

export const Faint = styled.span`
  color: ${color.faint};
`
