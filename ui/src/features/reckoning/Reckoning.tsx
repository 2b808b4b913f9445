import { useRef, useState } from 'react'
import { Button } from 'react-aria-components'
import styled from 'styled-components'

import type { FittedAssembly } from '../../api/assemblies'
import { messageOf } from '../../api/problem'
import type { Verdict } from '../../api/reckoning'
import { useIsConnected } from '../../data/connection'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'
import { useShortcut } from '../../kit/shortcuts'
import { atSpot } from '../../kit/spot'
import { useNarrow } from '../../kit/useNarrow'
import { color, narrow, space, target } from '../../theme'
import { ordered } from './order'
import type { Reckoning as Reckoned } from './useReckoning'
import { useRead } from './useRead'
import { VerdictLine } from './VerdictLine'

type Stage = { path: string; name: string; figures: string[] }
type Props = { assemblies: FittedAssembly[]; reckoning: Reckoned
  /** The stage that is open, of those there are; none for a board that is in no machine. */
  stage?: Stage; stages?: Stage[]
  /** The page that shows the sheet of a board. */
  pageOf: (assemblyId: number) => string }

/** What the machine amounts to: first what the stage asks, then what needs attention here, then the rest by stage. */
export function Reckoning({ assemblies, reckoning, stage, stages = [], pageOf }: Props) {
  const column = useRef<HTMLElement>(null)
  const isNarrow = useNarrow()
  const isConnected = useIsConnected()
  const [isOpen, setOpen] = useState(false)
  const [unfolded, setUnfolded] = useState<ReadonlySet<string>>(new Set())
  const unfold = (path: string, isUnfolded: boolean) => {
    setUnfolded((before) => new Set(isUnfolded ? [...before, path] : [...before].filter((one) => one !== path)))
  }
  const verdicts = reckoning.machine?.verdicts ?? []
  const { isNews, read } = useRead(verdicts)
  useShortcut((key) => {
    if (key === 'w') column.current?.querySelector<HTMLElement>('h3 button')?.focus()
  })
  const titles = new Map(assemblies.map(({ id, title }) => [id, title]))
  const { figures, urgent, rest } = ordered(verdicts, stage, stages.map(({ path }) => path))
  const lines = (of: Verdict[]) => of.map((verdict) => (
    <VerdictLine
      key={verdict.key}
      verdict={verdict}
      titles={titles}
      isNews={isNews(verdict)}
      isAtItsStep={!stage || verdict.stage === stage.path}
      onRead={() => { read(verdict) }}
      addressOf={(spot) => atSpot(pageOf(spot.assembly), spot)}
      onGo={() => { setOpen(false) }}
    />
  ))
  const wanting = verdicts.filter(({ state }) => state !== 'plain').length
  return (
    <Column ref={column} aria-label="Reckoning">
      {isNarrow && (
        <Summary aria-expanded={isOpen} onPress={() => { setOpen(!isOpen) }}>
          <b>Reckoning</b> {[...figures.slice(0, 2).map(({ label, value }) => `${label} ${value}`),
            wanting > 0 && wants(wanting)].filter(Boolean).join(' · ')}
        </Summary>
      )}
      {(isOpen || !isNarrow) && <Lines>
        <h2>Reckoning</h2>
        {reckoning.error && <Notice tone="attention" word="Not up to date.">{messageOf(reckoning.error)}</Notice>}
        {figures.length > 0 && <Head>{lines(figures)}</Head>}
        {lines(urgent)}
        {rest.map(({ path, verdicts: of }) => {
          const count = of.filter(({ state }) => state !== 'plain').length
          return (
            <Folded key={path} onToggle={({ currentTarget: { open } }) => { unfold(path, open) }}>
              <summary>{path === stage?.path ? 'More here' : stages.find((one) => one.path === path)?.name ?? path}
                <Faint> {count > 0 ? wants(count) : `${String(of.length)} more`}</Faint></summary>
              {unfolded.has(path) && lines(of)}
            </Folded>
          )
        })}
        {!reckoning.machine && !isConnected && <p>It is not known here: there is no connection.</p>}
        {reckoning.machine && verdicts.length === 0 && (
          <Faint>Nothing to reckon yet. Add a board and write down what is on it, a line a part: <code>
            U40-U48 41256-15 8512
          </code></Faint>
        )}
      </Lines>}
    </Column>
  )
}

const wants = (count: number) => `${String(count)} ${count === 1 ? 'wants' : 'want'} attention`

const Column = styled.aside`
  position: sticky;
  top: 0;
  align-self: start;
  max-height: 100vh;
  overflow-y: auto;

  ${narrow} {
    position: sticky;
    top: auto;
    bottom: 0;
    z-index: 2;
    max-height: 75vh;
    border-top: 1px solid ${color.slate};
    background: ${color.paper};
  }
`
/** On a phone: one line at the bottom, which opens. */
const Summary = styled(Button)`
  position: sticky;
  top: 0;
  z-index: 2;
  width: 100%;
  min-height: ${target.main};
  padding: 0 ${space(2)};
  border: none;
  background: ${color.slateGround};
  color: ${color.ink};
  font: inherit;
  font-size: 15px;
  text-align: left;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  cursor: pointer;
  &[data-focus-visible] { outline: 2px solid ${color.slate}; outline-offset: -2px; }
`
const Lines = styled.div`
  padding: ${space(2)};
  h2 { font-size: 18px; padding-bottom: ${space(1)}; border-bottom: 1px solid ${color.line}; }
`
/** Always in sight: what the stage is about. */
const Head = styled.div`
  position: sticky;
  top: 0;
  z-index: 1;
  border-bottom: 2px solid ${color.slate};
  background: ${color.paper};
  ${narrow} { position: static; }
`
const Folded = styled.details`
  border-bottom: 1px solid ${color.line};
  summary { min-height: ${target.small}; padding: 6px ${space(1)}; cursor: pointer; }
  summary:focus-visible { outline: 2px solid ${color.slate}; outline-offset: -2px; }
`
