import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'

import { color, radius, space, target } from '../theme'

/** A button; `$tone` main for the one thing to do here, quiet for what stands in a line of text. */
export const Button = styled(AriaButton)<{ $tone?: 'main' | 'quiet'; $small?: boolean }>`
  min-height: ${({ $tone, $small }) => ($small || $tone === 'quiet' ? target.small : target.main)};
  padding: 0 ${({ $tone, $small }) => space($small || $tone === 'quiet' ? 1 : 2)};
  border: 1px solid
    ${({ $tone }) => ($tone === 'main' ? color.slate : $tone === 'quiet' ? 'transparent' : color.edge)};
  border-radius: ${radius};
  background: ${({ $tone }) => ($tone === 'main' ? color.slate : 'transparent')};
  color: ${({ $tone }) => ($tone === 'main' ? color.onSlate : color.slate)};
  font-weight: ${({ $tone }) => ($tone === 'main' ? 600 : 400)};
  cursor: pointer;
  white-space: nowrap;

  &[data-hovered] { border-color: ${color.slate}; text-decoration: underline; }
  &[data-pressed] { background: ${({ $tone }) => ($tone === 'main' ? color.ink : color.slateGround)}; }
  &[data-pressed] { color: ${({ $tone }) => ($tone === 'main' ? color.paper : color.slate)}; }
  &[data-disabled] { cursor: default; border-color: ${color.line}; background: transparent; color: ${color.faint};
    text-decoration: none; }
  &[data-pending] { cursor: progress; border-style: dashed; }
  &[data-pending]::after { content: ' …'; }
  &[data-focus-visible] { outline: 2px solid ${color.slate}; outline-offset: 2px; }
`

/** Buttons side by side; they wrap where there is no room. */
export const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${space(1)};
`
