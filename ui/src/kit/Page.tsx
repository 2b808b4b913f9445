import { isValidElement, type ReactNode } from 'react'
import styled from 'styled-components'

import { color, space } from '../theme'
import { usePageTitle } from './pageTitle'

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

/** The heading of a page, which is named by it in the window's title, too. */
export function Title({ children, named }: { children: ReactNode; named?: string }) {
  usePageTitle(named ?? wordsOf(children).replace(/^.* \/ /, ''))
  return <Heading>{children}</Heading>
}

/** The words that are to be read in a heading. */
function wordsOf(node: ReactNode): string {
  if (Array.isArray(node)) return node.map(wordsOf).join('')
  if (isValidElement<{ children?: ReactNode }>(node)) return wordsOf(node.props.children)
  return typeof node === 'string' || typeof node === 'number' ? String(node) : ''
}

const Heading = styled.h1`
  font-size: 24px;
  outline: none;
`

export const Faint = styled.span`
  color: ${color.faint};
`
