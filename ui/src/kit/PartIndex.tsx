import { useEffect, useRef, useState } from 'react'
import { Link, useLocation } from 'react-router'
import styled from 'styled-components'

import { color, space } from '../theme'

type Entry = { id: string; title: string }

/** Fewer parts than these are seen at once. */
const fewest = 3

/** The parts of a long page in one row that stays in sight, with the one that is read; each leads to its part. */
export function PartIndex() {
  const { search } = useLocation()
  const row = useRef<HTMLElement>(null)
  const [parts, setParts] = useState<Entry[]>([])
  const [at, setAt] = useState('')
  useEffect(() => {
    const page = row.current?.closest('main')
    if (!page) return
    let waiting = false
    const look = () => {
      waiting = false
      const sections = [...page.querySelectorAll<HTMLElement>('section[data-part]')]
        .filter((one) => !one.parentElement?.closest('section[data-part]'))
      setParts((before) => {
        const now = sections.map(({ id, dataset }) => ({ id, title: dataset.part ?? '' }))
        return JSON.stringify(before) === JSON.stringify(now) ? before : now
      })
      // The last part whose head has gone past the index is the one that is read.
      const read = sections.filter((one) => one.getBoundingClientRect().top < 96).at(-1) ?? sections[0]
      setAt(read?.id ?? '')
    }
    const soon = () => {
      if (waiting) return
      waiting = true
      requestAnimationFrame(look)
    }
    soon()
    const watch = new MutationObserver((changes) => {
      // Words that are typed and rows that are drawn change no part.
      if (changes.some(({ addedNodes, removedNodes }) => [...addedNodes, ...removedNodes].some(holdsPart))) soon()
    })
    watch.observe(page, { childList: true, subtree: true })
    addEventListener('scroll', soon, { passive: true })
    return () => {
      watch.disconnect()
      removeEventListener('scroll', soon)
    }
  }, [])
  useEffect(() => {
    const current = row.current?.querySelector<HTMLElement>('[aria-current]')
    if (row.current && current) row.current.scrollLeft = current.offsetLeft - row.current.clientWidth / 2
  }, [at])
  return (
    <Row ref={row} aria-label="Parts of this page">
      {parts.length >= fewest && parts.map(({ id, title }) => (
        <Link key={id} to={{ search, hash: id }} replace preventScrollReset
          aria-current={id === at ? 'location' : undefined}>{title}</Link>
      ))}
    </Row>
  )
}

const holdsPart = (node: Node) =>
  node instanceof Element && (node.matches('section[data-part]') || node.querySelector('section[data-part]') !== null)

const Row = styled.nav`
  position: sticky;
  top: 0;
  z-index: 1;
  display: flex;
  gap: ${space(2)};
  height: 36px; /* also while it is empty, so that nothing moves when the parts come */
  overflow-x: auto;
  white-space: nowrap;
  background: ${color.paper};
  border-bottom: 1px solid ${color.line};
  scrollbar-width: none;
  a { padding: 7px 0 4px; border-bottom: 2px solid transparent; color: ${color.faint}; font-size: 14px;
    text-decoration: none; }
  a:hover { border-color: ${color.line}; }
  a[aria-current] { border-color: ${color.slate}; color: ${color.slate}; }
  @media print { display: none; }
`
