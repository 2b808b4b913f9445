import { useInfiniteQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled, { css } from 'styled-components'

import { type HistoryOf, historyQuery, type EventView } from '../../api/history'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { Button } from '../../kit/Button'
import { Notice } from '../../kit/Notice'
import { VirtualList } from '../../kit/VirtualList'
import { color, font, space } from '../../theme'
import { useUndo } from '../../api/undo'
import { moment } from './moment'

/** Who did what when, the newest first. */
export function HistoryList({ of }: { of: HistoryOf }) {
  const history = useInfiniteQuery(historyQuery(of))
  const events = history.data?.pages.flatMap((page) => page.events) ?? []
  return (
    <>
      {history.error && <Notice tone="stop" word="Not read.">{messageOf(history.error)}</Notice>}
      {of === 'collection' ? (
        <Events items={events} estimate={35} keyOf={({ id }) => id}>
          {(event) => <Event event={event} withMachine />}
        </Events>
      ) : (
        <ShortEvents>
          {events.map((event) => <li key={event.id}><Event event={event} withMachine={false} /></li>)}
        </ShortEvents>
      )}
      {history.hasNextPage && (
        <Button onPress={() => void history.fetchNextPage()} isPending={history.isFetchingNextPage}>
          Show earlier
        </Button>
      )}
    </>
  )
}

function Event({ event, withMachine }: { event: EventView; withMachine: boolean }) {
  const role = useAccount()?.role
  return (
    <>
      <time dateTime={event.at}>{moment(event.at)}</time>
      <span>
        {withMachine && event.machineId && <><Link to={`/bench/${String(event.machineId)}`}>
          {event.accession}
        </Link>{' '}</>}
        {event.by || 'The command line'} {event.what}
        {role && event.mayUndo.includes(role) && <Undo event={event.id} />}
      </span>
    </>
  )
}

function Undo({ event }: { event: number }) {
  const undo = useUndo()
  return (
    <>
      {' '}<Button $tone="quiet" $small isPending={undo.isPending} onPress={() => { undo.mutate(event) }}>Undo</Button>
      {undo.error && <Notice tone="stop" word="Not undone.">{messageOf(undo.error)}</Notice>}
    </>
  )
}

const eventRows = css`
  > li {
    display: grid;
    grid-template-columns: 152px minmax(0, 1fr);
    gap: ${space(1)};
    padding: 5px 0;
    border-bottom: 1px solid ${color.line};
    overflow-wrap: anywhere;
  }
  time { color: ${color.faint}; font: 14px/24px ${font.mono}; }
  @media (max-width: 600px) { > li { grid-template-columns: minmax(0, 1fr); gap: 0; } }
`
const Events = styled(VirtualList<EventView>)`${eventRows}`
/** Those of one thing stand in a panel that scrolls by itself. */
const ShortEvents = styled.ol`${eventRows}`
