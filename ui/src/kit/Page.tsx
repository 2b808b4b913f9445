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

/** A room's title with its filter and its main action. */
export const PageHead = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: ${space(1)} ${space(3)};
  border-bottom: 1px solid ${color.line};
  padding-bottom: ${space(2)};
  > :nth-child(2) { flex: 1 1 280px; max-width: 560px; }
`

export const Title = styled.h1`
  font-size: 24px;
`

export const Faint = styled.span`
  color: ${color.faint};
`
