import { useQuery } from '@tanstack/react-query'

import { ownSessionsQuery, useEndSession } from '../../api/people'
import { messageOf } from '../../api/problem'
import { moment } from '../../features/history/moment'
import { Button } from '../../kit/Button'
import { ListTable, Scroll } from '../../kit/ListTable'
import { Notice } from '../../kit/Notice'

/** Where one is signed in; any session but this one can be ended from here. */
export function Sessions() {
  const sessions = useQuery(ownSessionsQuery)
  const end = useEndSession()
  return (
    <section aria-label="Where you are signed in">
      <h2>Where you are signed in</h2>
      {(sessions.error ?? end.error) && <Notice tone="stop" word="Not done.">
        {messageOf(sessions.error ?? end.error)}
      </Notice>}
      <Scroll>
        <ListTable>
          <thead><tr><th>Since</th><th>Address</th><th>Browser or program</th><th>Session</th></tr></thead>
          <tbody>
            {sessions.data?.map((session) => (
              <tr key={session.key}>
                <td>{moment(session.started)}</td>
                <td>{session.address}</td>
                <td>{session.agent}</td>
                <td>
                  {session.isThis ? 'this one' : (
                    <Button $small isPending={end.isPending && end.variables === session.key}
                      aria-label={`End the session since ${moment(session.started)}`}
                        onPress={() => { end.mutate(session.key) }}>End it</Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </ListTable>
      </Scroll>
    </section>
  )
}
