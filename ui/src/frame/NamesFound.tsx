import { useQuery } from '@tanstack/react-query'
import { Link, useLocation } from 'react-router'

import { mentionsQuery, offerMentions, useDecideMention, useMentionsOffered } from '../api/mentions'
import { messageOf } from '../api/problem'
import { Button } from '../kit/Button'
import { Mark } from '../kit/Mark'
import { Bar } from './bars'

const listOfAll = '/library/people'

/**
 * Asks about a name that stands in a text, whether the private person of that name is meant. The list of all asks
 * itself.
 */
export function NamesFound() {
  const isListed = useLocation().pathname === listOfAll
  const isOffered = useMentionsOffered() && !isListed
  const mentions = useQuery({ ...mentionsQuery, enabled: isOffered })
  const decide = useDecideMention()
  const mention = isOffered ? mentions.data?.[0] : undefined
  const say = (meant: boolean) => { if (mention) decide.mutate({ id: mention.id, version: mention.version, meant }) }
  return (
    <div role="status">
      {mention && (
        <Bar>
          <span>
            <Mark kind="attention" /> “{mention.spelling}” stands in a text. Is that {mention.party}, a private person?
            Viewers read “{mention.role}” there.
          </span>
          {decide.error && <span>Not saved: {messageOf(decide.error)}</span>}
          <Button $small isPending={decide.isPending} onPress={() => { say(true) }}>It is {mention.party}</Button>
          <Button $small isPending={decide.isPending} onPress={() => { say(false) }}>No, leave the word</Button>
          <Link to={listOfAll}>All names found</Link>
          <Button $small $tone="quiet" onPress={() => { offerMentions(false) }}>Later</Button>
        </Bar>
      )}
    </div>
  )
}
