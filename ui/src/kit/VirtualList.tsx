import { Fragment, type ReactNode } from 'react'
import styled from 'styled-components'

import { useVirtualRows } from './VirtualRows'

/** A list that can grow, of things of any height: only those in sight are drawn. */
export function VirtualList<Item>({ items, estimate, keyOf, children, className }: { items: Item[]; estimate: number;
  keyOf: (item: Item) => string | number; children: (item: Item) => ReactNode; className?: string }) {
  const { box, drawn, gapBefore, gapAfter, measure } = useVirtualRows(items.length, estimate)
  return (
    <List ref={box} className={className}>
      {drawn.map((index) => {
        const item = items[index]
        return item !== undefined && (
          <Fragment key={keyOf(item)}>
            <Gap height={gapBefore(index)} />
            <li ref={measure} data-index={index} aria-posinset={index + 1} aria-setsize={items.length}>
              {children(item)}
            </li>
          </Fragment>
        )
      })}
      <Gap height={gapAfter} />
    </List>
  )
}

const Gap = ({ height }: { height: number }) =>
  height > 0 ? <li aria-hidden="true" role="presentation" style={{ height, padding: 0, border: 'none' }} /> : null

const List = styled.ul`
  padding: 0;
  margin: 0;
  list-style: none;
`
