import { type ComponentProps, useEffect, useRef, useState } from 'react'
import styled from 'styled-components'

import { color, font, space } from '../theme'

/** The frame of a table that may be wider than the page; where it is, the keyboard can reach and move it. */
export function Scroll({ children, ...props }: ComponentProps<'div'>) {
  const box = useRef<HTMLDivElement>(null)
  const [isWider, setWider] = useState(false)
  useEffect(() => {
    const watched = box.current
    if (!watched || typeof ResizeObserver === 'undefined') return
    const observer = new ResizeObserver(() => { setWider(watched.scrollWidth > watched.clientWidth + 1) })
    observer.observe(watched)
    if (watched.firstElementChild) observer.observe(watched.firstElementChild)
    return () => { observer.disconnect() }
  }, [])
  return <Frame ref={box} {...(isWider && { tabIndex: 0 })} {...props}>{children}</Frame>
}

const Frame = styled.div`
  position: relative; /* what is only read aloud stays inside */
  overflow-x: auto;
`

/** A list as a table. */
export const ListTable = styled.table`
  width: 100%;
  border-collapse: collapse;
  background: ${color.sheet};
  th, td { padding: 6px ${space(1)}; border-bottom: 1px solid ${color.line}; text-align: left; vertical-align: top;
    overflow-wrap: break-word; }
  @media (max-width: 600px) { th, td { overflow-wrap: anywhere; } }
  th { font-weight: 600; font-size: 14px; color: ${color.faint}; white-space: nowrap; overflow-wrap: normal; }
  tbody tr:hover, tbody tr:focus-within, tbody tr[aria-selected='true'] { background: ${color.slateGround}; }
`

/**
 * A list as a table that becomes one block a row on a phone, each cell under the other. What a cell says only below its
 * head, as a figure, names it there: `data-head`.
 */
export const StackedTable = styled(ListTable)`
  @media (max-width: 600px) {
    thead { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); }
    tbody tr { display: block; padding: ${space(1)} 0; border-bottom: 1px solid ${color.line}; }
    && td { display: block; padding: 2px ${space(1)}; border: none; white-space: normal; }
    td:empty { display: none; }
    && td[data-head] { text-align: left; }
    td[data-head]:not(:empty)::before { content: attr(data-head) ': '; color: ${color.faint}; }
  }
`

/** A cell whose words stay on one line. */
export const Whole = styled.td`
  && { white-space: nowrap; overflow-wrap: normal; }
`

/** A cell of figures, with decimals below each other. */
export const Figure = styled.td<{ $warn?: boolean; $text?: boolean }>`
  && { text-align: ${({ $text }) => ($text ? 'left' : 'right')}; white-space: nowrap; }
  td& { font: 14px/24px ${font.mono}; color: ${({ $warn }) => ($warn ? color.amber : 'inherit')}; }
`
