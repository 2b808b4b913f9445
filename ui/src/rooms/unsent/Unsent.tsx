import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { messageOf } from '../../api/problem'
import { tryNow, useIsConnected } from '../../data/connection'
import type { Waiting } from '../../data/device'
import { keepUnder } from '../../data/drafts'
import { dropWaiting, tryAgain } from '../../data/outbox'
import { useDrafts } from '../../data/useDrafts'
import { useWaiting } from '../../data/useWaiting'
import { moment } from '../../features/history/moment'
import { Button, Buttons } from '../../kit/Button'
import { Mark } from '../../kit/Mark'
import { Notice } from '../../kit/Notice'
import { Faint, Page, Title } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { color, font, space } from '../../theme'
import { wordsOf } from './words'

/** What is done or typed on this device and not with the server yet: what waits, what was not taken, what is begun. */
export default function Unsent() {
  const waiting = useWaiting()
  const drafts = useDrafts()
  const isConnected = useIsConnected()
  return (
    <Page>
      <Title>Not sent yet</Title>
      <Part title="Done, and kept here" faint="Sent in this order"
        action={!isConnected && <Button $small onPress={() => void tryNow()}>Try now</Button>}>
        {waiting.length === 0 ? <p>Nothing waits.</p> : <List>{waiting.map((one) => <One key={one.id} waiting={one} />)}
        </List>}
      </Part>
      <Part title="Begun, and not saved" faint="Each stands in its form again when it is opened">
        {drafts.length === 0 ? <p>Nothing is begun.</p> : (
          <List>
            {drafts.map(({ name, page, title, at, value }) => (
              <li key={name}>
                <div>
                  <Link to={page}>{title.replace(/ - Frugal Heron$/, '')}</Link> <Faint>{nameOf(name)}, {moment(at)}</Faint>
                  <Typed>{wordsOf(value)}</Typed>
                </div>
                <Button $small onPress={() => { keepUnder(name, undefined) }} aria-label={`Delete ${name}`}>Delete</Button>
              </li>
            ))}
          </List>
        )}
      </Part>
    </Page>
  )
}

/** What a form is called, without the numbers of records that tell it from others. */
const nameOf = (kept: string) => kept.replace(/\b\d+\b/g, '').replace(/\s+/g, ' ').trim()

function One({ waiting }: { waiting: Waiting }) {
  const [wrong, setWrong] = useState('')
  const attempt = (deed: Promise<void>) => { deed.catch((error: unknown) => { setWrong(messageOf(error)) }) }
  return (
    <li>
      <div>
        <Mark kind={waiting.refused ? 'problem' : 'working'} /> <Link to={waiting.page}>{waiting.title}</Link>{' '}
        <Faint>{moment(waiting.at)}</Faint>
        <Typed>{wordsOf(waiting.body)}</Typed>
        {waiting.refused && <Notice tone="stop" word="Not taken.">{waiting.refused}</Notice>}
        {wrong && <Notice tone="stop" word="Not done.">{wrong}</Notice>}
      </div>
      <Buttons>
        {waiting.refused && <Button $small onPress={() => { attempt(tryAgain(waiting)) }}>Try again</Button>}
        <Button $small onPress={() => { attempt(dropWaiting(waiting)) }}
          aria-label={`Delete what waits of ${waiting.title}`}>Delete</Button>
      </Buttons>
    </li>
  )
}

const List = styled.ul`
  li { display: flex; flex-wrap: wrap; align-items: center; justify-content: space-between; gap: ${space(1)};
    padding: ${space(1)} 0;
    border-bottom: 1px dotted ${color.line}; }
  li > :first-child { flex: 1 1 240px; min-width: 0; }
  svg { vertical-align: -3px; }
`
const Typed = styled.p`
  font-family: ${font.mono};
  font-size: 14px;
  overflow-wrap: anywhere;
  white-space: pre-line;
  max-height: 9em;
  overflow: hidden;
`
