import { Suspense, useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import { NavLink, Outlet, useLocation, useNavigate } from 'react-router'
import styled from 'styled-components'

import { useAccount } from '../api/session'
import { Boundary } from '../kit/Boundary'
import { Button } from '../kit/Button'
import { Page } from '../kit/Page'
import { useShortcut } from '../kit/shortcuts'
import { Skeleton } from '../kit/Skeleton'
import { color, font, space } from '../theme'
import { Announced } from './Announced'
import { AtHand } from './AtHand'
import { Bars } from './bars'
import { LeftBehind } from './LeftBehind'
import { Moving } from './Moving'
import { NamesFound } from './NamesFound'
import { UndoBar } from './UndoBar'
import { rooms } from './rooms'
import { QuickEntry } from './QuickEntry'
import { Help } from './help/Help'
import { SignInAgain } from './SignInAgain'
import { SignOut } from './SignOut'
import { Unsent } from './Unsent'
import { useArrival } from './useArrival'
import { useKeptFocus } from './useKeptFocus'

/** The bar with the rooms, say or find, and who is signed in; the room below it. */
export function Frame() {
  const navigate = useNavigate()
  const find = useRef<HTMLInputElement>(null)
  const going = useRef(false)
  const at = useLocation().pathname
  const [help, setHelp] = useState(false)
  const [said, setSaid] = useState({ count: 0, start: '' })
  const note = () => {
    flushSync(() => { setSaid(({ count }) => ({ count: count + 1, start: 'note ' })) })
    find.current?.focus()
  }
  const room = useRef<HTMLDivElement>(null)
  useArrival(room)
  useKeptFocus(room)

  useShortcut((key, event) => {
    const next = going.current ? rooms.find((candidate) => candidate.key === key) : undefined
    going.current = key === 'g'
    if (next) void navigate(next.path)
    else if (key === 'o') void navigate('/diary/open-first')
    else if (key === '?') setHelp(true)
    else if (key === '/') {
      event.preventDefault()
      find.current?.focus()
    }
  })

  return (
    <>
      <Moving />
      <Bar>
        <SkipLink href="#room">Skip to the room</SkipLink>
        <Word aria-hidden="true">heron</Word>
        <nav aria-label="Rooms">
          <Rooms>
            {rooms.map(({ path, name, key }) => (
              <li key={path}>
                <RoomLink to={path} title={`g then ${key}`}>{name}</RoomLink>
              </li>
            ))}
          </Rooms>
        </nav>
        <QuickEntry key={said.count} inputRef={find} start={said.start} />
        <Who onHelp={() => { setHelp(true) }} />
      </Bar>
      <Unsent />
      <Room ref={room} id="room" tabIndex={-1}>
        <Boundary of="This room" at={at}>
          <Suspense fallback={<Page><Skeleton what="The room" lines={12} /></Page>}><Outlet /></Suspense>
        </Boundary>
      </Room>
      <Bars>
        <LeftBehind />
        <NamesFound />
        <UndoBar />
      </Bars>
      <AtHand onNote={note} />
      <Announced />
      <SignInAgain />
      <Help isOpen={help} onClose={() => { setHelp(false) }} />
    </>
  )
}

function Who({ onHelp }: { onHelp: () => void }) {
  const account = useAccount()
  return (
    <WhoBox>
      <Button $tone="quiet" aria-label="Help" onPress={onHelp}><kbd>?</kbd></Button>
      <Name to="/account">{account?.name}, {account?.role}</Name>
      <SignOut />
    </WhoBox>
  )
}

const Bar = styled.header`
  position: relative;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 ${space(2)};
  min-height: 48px;
  padding: 0 ${space(2)};
  border-bottom: 1px solid ${color.line};
  background: ${color.sheet};
  nav { min-width: 0; }
  @media (max-width: 600px) { padding: 0 ${space(1)}; nav { flex: 1 0 100%; } }
  @media print { display: none; }
`
const SkipLink = styled.a`
  position: absolute;
  left: ${space(1)};
  top: -48px;
  padding: ${space(1)};
  background: ${color.sheet};
  &:focus { top: ${space(1)}; z-index: 3; }
`
const Word = styled.span`
  font: 600 18px ${font.body};
  letter-spacing: 0.04em;
  color: ${color.slate};
  @media (max-width: 600px) { display: none; }
`
const Rooms = styled.ul`
  display: flex;
  flex-wrap: wrap;
  @media (max-width: 600px) { flex-wrap: nowrap; overflow-x: auto; }
`
const RoomLink = styled(NavLink)`
  display: block;
  padding: 12px ${space(1)} 9px;
  border-bottom: 3px solid transparent;
  color: ${color.ink};
  text-decoration: none;
  &:hover { border-color: ${color.line}; }
  &.active { border-color: ${color.slate}; color: ${color.slate}; font-weight: 600; }
`
const WhoBox = styled.div`
  display: flex;
  align-items: center;
`
const Name = styled(NavLink)`
  padding: ${space(1)};
  color: ${color.faint};
  font-size: 14px;
  @media (max-width: 600px) { max-width: 72px; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
`
const Room = styled.div`
  outline: none;
`
