import { useRef } from 'react'
import styled from 'styled-components'

import type { FittedAssembly } from '../api/assemblies'
import { messageOf } from '../api/problem'
import { Notice } from '../kit/Notice'
import { Faint } from '../kit/Page'
import { useShortcut } from '../kit/shortcuts'
import { color, narrow, space } from '../theme'
import type { Reckoning as Reckoned } from './useReckoning'
import { useRead } from './useRead'
import { VerdictLine } from './VerdictLine'

/** What the machine amounts to, the largest consequence first; each line opens its why. */
export function Reckoning({ assemblies, reckoning }: { assemblies: FittedAssembly[]; reckoning: Reckoned }) {
  const column = useRef<HTMLElement>(null)
  const verdicts = reckoning.machine?.verdicts ?? []
  const { isNews, read } = useRead(verdicts)
  useShortcut((key) => {
    if (key === 'w') column.current?.querySelector('button')?.focus()
  })
  const titles = new Map(assemblies.map(({ id, title }) => [id, title]))
  return (
    <Column ref={column} aria-label="Reckoning">
      <h2>Reckoning</h2>
      {reckoning.error && <Notice tone="attention" word="Not up to date.">{messageOf(reckoning.error)}</Notice>}
      {verdicts.map((verdict) => (
        <VerdictLine
          key={verdict.key}
          verdict={verdict}
          titles={titles}
          isNews={isNews(verdict)}
          onRead={() => { read(verdict) }}
          onShow={reckoning.show}
        />
      ))}
      {reckoning.machine && verdicts.length === 0 && (
        <Faint>Nothing to reckon yet. Add a board and write down what is on it, a line a part: <code>
          U40-U48 41256-15 8512
        </code></Faint>
      )}
    </Column>
  )
}

const Column = styled.aside`
  position: sticky;
  top: 0;
  align-self: start;
  max-height: 100vh;
  overflow-y: auto;
  padding: ${space(2)};
  h2 { font-size: 18px; padding-bottom: ${space(1)}; border-bottom: 1px solid ${color.line}; }

  ${narrow} { position: static; max-height: none; border-top: 1px solid ${color.line}; }
`
