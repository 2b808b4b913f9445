import { Link } from 'react-router'
import styled from 'styled-components'

import { useIsConnected } from '../data/connection'
import { useDraftsInTrouble } from '../data/useDrafts'
import { useWaiting } from '../data/useWaiting'
import { Mark } from '../kit/Mark'
import { color, space } from '../theme'

/** Says that there is no connection, what waits on this device, and what was not taken. */
export function Unsent() {
  const isConnected = useIsConnected()
  const waiting = useWaiting()
  const noRoom = useDraftsInTrouble()
  const refused = waiting.filter((one) => one.refused).length
  const left = waiting.length - refused
  const words = [
    !isConnected && (left > 0 ? `${things(left)} kept here, waiting for a connection.`
      : 'No connection. What you see is what was seen last; what you do is kept here, and sent later.'),
    isConnected && left > 0 && `${things(left)} kept here, on the way.`,
    refused > 0 && `${things(refused)} ${refused === 1 ? 'was' : 'were'} not taken.`,
    noRoom && 'This device has no room: what you type is kept only as long as this page is open.',
  ].filter(Boolean)
  return (
    <Stays role="status">
      {words.length > 0 && (
        <Strip>
          <span><Mark kind={refused > 0 || noRoom ? 'problem' : 'attention'} /> {words.join(' ')}</span>
          {waiting.length > 0 && <Link to="/unsent">Show them</Link>}
        </Strip>
      )}
    </Stays>
  )
}

const things = (count: number) => (count === 1 ? '1 thing' : `${String(count)} things`)

// In sight wherever one works on the page.
const Stays = styled.div`
  position: sticky;
  top: 0;
  z-index: 4;
`
const Strip = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 ${space(2)};
  padding: 4px ${space(2)};
  border-bottom: 1px solid ${color.amber};
  background: ${color.amberGround};
  svg { vertical-align: -3px; }
  a { min-height: 24px; }
  @media print { display: none; }
`
