import { useEffect, useRef } from 'react'
import { NavLink, useNavigate, useParams } from 'react-router'
import styled from 'styled-components'

import { useIsConnected } from '../../data/connection'
import { Mark, type MarkKind } from '../../kit/Mark'
import { useShortcut } from '../../kit/shortcuts'
import { color, narrow, space } from '../../theme'
import { glance, type Stage, stages, type StageState } from './stages'

const marks: Record<StageState['state'], MarkKind> = {
  untouched: 'none',
  'in hand': 'working',
  'needs attention': 'attention',
  settled: 'done',
}

/** The ten stages down the left edge, each with its state as shape and word. */
export function StageRail({ machineId, known }: { machineId: number;
  known: Parameters<NonNullable<Stage['state']>>[0] }) {
  const current = useParams().stage
  const navigate = useNavigate()
  const places = [glance, ...stages]
  const isConnected = useIsConnected()
  const at = places.findIndex(({ path }) => path === current)

  const rail = useRef<HTMLElement>(null)
  useEffect(() => {
    const link = rail.current?.querySelector<HTMLElement>('.active')
    if (link && rail.current) rail.current.scrollLeft = link.offsetLeft - rail.current.offsetLeft - 16
  }, [current])

  useShortcut((key) => {
    const next = key === ']' ? places[at + 1] : key === '[' ? places[at - 1] : undefined
    if (next) void navigate(`/bench/${String(machineId)}/${next.path}`)
  })

  return (
    <Rail ref={rail} aria-label="Stages">
      <ol>
        <li><StageLink to={`/bench/${String(machineId)}/${glance.path}`}><Mark kind="text" /><span>{glance.name}</span>
        </StageLink></li>
        {stages.map(({ path, name, usual, later, state: stateOf }) => {
          const at = stateOf?.(known)
          const state = later ? 'later' : at?.state ?? (isConnected ? '...' : 'not known here')
          const count = !later && at?.count ? ` ${String(at.count)}` : ''
          return (
            <li key={path}>
              <StageLink to={`/bench/${String(machineId)}/${path}`}>
                <Mark kind={later ? 'later' : at ? marks[at.state] : 'unknown'} />
                <span>
                  {name}
                  <Usual>{usual}</Usual>
                  <State>{state}{count}</State>
                </span>
              </StageLink>
            </li>
          )
        })}
      </ol>
    </Rail>
  )
}

const Rail = styled.nav`
  padding: ${space(1)} 0;
  border-right: 1px solid ${color.line};

  ${narrow} {
    border-right: none;
    border-bottom: 1px solid ${color.line};
    overflow-x: auto;
    ol { display: flex; }
  }
`
const StageLink = styled(NavLink)`
  display: flex;
  align-items: flex-start;
  gap: ${space(1)};
  padding: 5px ${space(1)} 5px ${space(2)};
  border-left: 3px solid transparent;
  color: ${color.ink};
  line-height: 1.25;
  text-decoration: none;
  white-space: nowrap;
  svg { margin-top: 2px; }
  &:hover { background: ${color.sheet}; }
  &.active { border-color: ${color.slate}; background: ${color.sheet}; font-weight: 600; }
`
const Usual = styled.span`
  display: block;
  color: ${color.faint};
  font-size: 13px;
  font-weight: 400;
  white-space: normal;
  ${narrow} { display: none; }
`
const State = styled.span`
  display: block;
  color: ${color.faint};
  font-size: 13px;
  font-weight: 400;
`
