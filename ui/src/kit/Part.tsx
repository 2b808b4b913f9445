import type { ReactNode } from 'react'
import styled from 'styled-components'

import { color, space } from '../theme'
import { Boundary } from './Boundary'

type Props = { title: string; faint?: ReactNode; action?: ReactNode; children: ReactNode }

/** A part of a page: its heading, what can be done with it, and what it holds. */
export function Part({ title, faint, action, children }: Props) {
  return (
    <PartSection {...partOf(title)}>
      <Ruled>
        <h2>{title}</h2>
        {faint && <Beside>{faint}</Beside>}
        <Actions>{action}</Actions>
      </Ruled>
      <Boundary of={title}>{children}</Boundary>
    </PartSection>
  )
}

/** How a part is called, by readers, in addresses and in the index of its page. */
export const partOf = (title: string) => ({ 'aria-label': title, 'data-part': title, id: partId(title) })

/** The part of an address that leads to a part. */
export const partId = (title: string) => title.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '')

/** What a part stands in. */
export const PartSection = styled.section`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  min-width: 0;
  scroll-margin-top: 48px; /* below the index of the page */
`
/** The head of a part: its heading, and beside it what there is to say and do. */
export const PartHead = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px ${space(1)};
  h2 { font-size: 18px; overflow-wrap: anywhere; }
`
const Ruled = styled(PartHead)`
  column-gap: ${space(2)};
  border-bottom: 1px solid ${color.line};
  padding-bottom: 4px;
`
const Beside = styled.span`
  color: ${color.faint};
  font-size: 15px;
`
const Actions = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(1)};
  margin-left: auto;
`

/** Facts one below the other: what, then how it is. */
export const Facts = styled.dl`
  display: grid;
  grid-template-columns: minmax(120px, 200px) minmax(0, 1fr);
  gap: 4px ${space(2)};
  margin: 0;
  dt { color: ${color.faint}; }
  dd { margin: 0; overflow-wrap: anywhere; white-space: pre-line; }
  @media (max-width: 600px) { grid-template-columns: minmax(0, 1fr); gap: 0; dd { padding-bottom: 4px; } }
`

/** What is in hand within a part, set off from the rest. */
export const InHand = styled.section`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  padding: ${space(2)};
  border: 1px solid ${color.slate};
  background: ${color.sheet};
  h3 { font-size: 18px; overflow-wrap: anywhere; }
`
