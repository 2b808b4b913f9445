import styled from 'styled-components'

/** Steps that are done one after the other. */
export const Numbered = styled.ol`
  padding-left: 28px;
  list-style: decimal;
  li { overflow-wrap: anywhere; }
`
