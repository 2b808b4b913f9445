import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import styled from 'styled-components'

import { type Capture, captureQuery, consoleQuery, useTakeClaim, useVoidCapture } from '../../../../api/console'
import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { signReadingQuery } from '../../../../api/signs'
import { ConsoleLines, ConsoleOutcome } from '../../../../features/console/ConsoleLines'
import { WhatItMeans } from '../../../../features/signs/WhatItMeans'
import { Button } from '../../../../kit/Button'
import { Notice } from '../../../../kit/Notice'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { usePanel } from '../../../../kit/usePanel'
import { color, space } from '../../../../theme'
import { ListenForm, Listening } from './Listening'
import { PasteText } from './PasteText'

/** What the machine says on its console or its screen: heard or pasted, read, and taken as statements. */
export function ConsolePart({ machine, mayWrite }: { machine: Machine; mayWrite: boolean }) {
  const told = useQuery(consoleQuery(machine.id))
  const [pasting, setPasting] = usePanel('text')
  const [listening, setListening] = usePanel('listen')
  const [asked] = useSearchParams()
  const named = Number(asked.get('capture'))
  const port = told.data?.port
  const live = port?.machineId === machine.id ? told.data?.captures.find(({ id }) => id === port.listening) : undefined
  const others = told.data?.captures.filter(({ id }) => id !== live?.id) ?? []
  const isBusy = Boolean(port?.listening) && !live
  return (
    <Part title="Console" faint="What it says of itself at start, as text"
      action={mayWrite && !live && <>
        {port?.address && !listening && <Button $small isDisabled={isBusy} onPress={() => { setListening(true) }}>Listen</Button>}
        {!pasting && <Button $small onPress={() => { setPasting(true) }}>Paste a text</Button>}
      </>}>
      {told.error && <Notice tone="stop" word="Not read.">{messageOf(told.error)}</Notice>}
      {isBusy && <p><Faint>The port is listened to for <Link to={`/bench/${String(port?.machineId)}/power-up#console`}>another
        machine</Link>.</Faint></p>}
      {listening && !live && <ListenForm machine={machine} onDone={() => { setListening(false) }} />}
      {pasting && <PasteText machine={machine} onDone={() => { setPasting(false) }} />}
      {live && <Listening capture={live} mayWrite={mayWrite} />}
      {told.data && others.length === 0 && !live && !pasting && !listening && <p><Faint>Nobody has listened to it yet, or
        typed off what its screen says.</Faint></p>}
      <Captures>{others.map((one, i) => (
        <OneCapture key={one.id} capture={one} isOpen={named ? one.id === named : i === 0} mayWrite={mayWrite} />
      ))}</Captures>
      {told.data?.more && <p><Faint>There are older ones; the history tells of each.</Faint></p>}
    </Part>
  )
}

function OneCapture({ capture, isOpen, mayWrite }: { capture: Capture; isOpen: boolean; mayWrite: boolean }) {
  const [opened, setOpened] = useState<boolean>()
  const shows = opened ?? isOpen
  const voiding = useVoidCapture()
  const { reading } = capture
  const amounts = [reading.failures.length > 0 && 'memory failed', reading.troubles.length > 0
    && (reading.troubles.length === 1 ? 'one line complains' : `${String(reading.troubles.length)} lines complain`), capture.during].filter(Boolean).join(', ')
  return (
    <li>
      <Line>
        <Button $tone="quiet" aria-expanded={shows} onPress={() => { setOpened(!shows) }}>
          {capture.on}, {capture.how === 'heard' ? 'heard' : 'typed off'}{amounts && `: ${amounts}`}</Button>
        <Faint>{capture.by}{capture.line && `, ${capture.line}`}{capture.ended && `, ${capture.ended}`}</Faint>
        {mayWrite && <Button $tone="quiet" isPending={voiding.isPending}
          aria-label={`Delete what its console said on ${capture.on}`} onPress={() => { voiding.mutate(capture) }}>
          Delete</Button>}
      </Line>
      <NotSaved error={voiding.error} />
      {shows && <Opened capture={capture} mayWrite={mayWrite} />}
    </li>
  )
}

function Opened({ capture, mayWrite }: { capture: Capture; mayWrite: boolean }) {
  const [all, setAll] = useState(false)
  const whole = useQuery({ ...captureQuery(capture.id), enabled: all })
  const { reading } = capture
  const text = reading.lines.map((line) => line.text).join('\n').slice(0, mostCompared)
  const signs = useQuery(signReadingQuery(capture.machineId, { kind: 'screen', shown: text, during: capture.during,
    on: capture.on }))
  const told = signs.data
  return (
    <>
      <ConsoleLines said={whole.data?.reading ?? reading} label={`What it said on ${capture.on}`} />
      {capture.linesLeft > 0 && !whole.data && <p><Button $small isPending={whole.isFetching}
        onPress={() => { setAll(true) }}>{capture.linesLeft} more lines</Button></p>}
      <ConsoleOutcome said={reading} />
      {told && told.reading.outcome !== 'no list' && <div aria-label="By its signs" role="group"><WhatItMeans read={told} /></div>}
      <Claims capture={capture} mayWrite={mayWrite} />
      {mayWrite && reading.troubles.length + reading.failures.length > 0 && <p><Link
        to={`/bench/${String(capture.machineId)}/judge?open=finding`}>Note a finding</Link> <Faint>where it is known what
        complains: the condition does not follow from a text</Faint></p>}
      {capture.note && <p>{capture.note}</p>}
    </>
  )
}

/** How much of a text is compared with the signs. */
const mostCompared = 4000

/** What lines say of the machine; each becomes a statement by one press, with the line as its source. */
function Claims({ capture, mayWrite }: { capture: Capture; mayWrite: boolean }) {
  const take = useTakeClaim(capture.id)
  if (capture.reading.claims.length === 0) return null
  return (
    <>
      <ul aria-label="What it says of itself">{capture.reading.claims.map((claim) => {
        const taken = capture.stated.some(({ line, attribute }) => line === claim.line && attribute === claim.attribute)
        const name = `${claim.attribute.replaceAll('-', ' ')}${claim.subject && ` of ${claim.subject}`} ${claim.value}`
        return (
          <li key={`${String(claim.line)} ${claim.attribute}`}>
            {claim.doubt && 'perhaps '}<strong>{name}</strong> <Faint>{claim.why}, line {claim.line}</Faint>{' '}
            {taken ? <Faint>taken as a statement</Faint> : mayWrite && <Button $small isPending={take.isPending}
              aria-label={`Take as statement: ${name}`}
              onPress={() => { take.mutate({ line: claim.line, attribute: claim.attribute }) }}>Take as statement</Button>}
            {claim.doubt && <><br /><Faint>{claim.doubt}</Faint></>}
          </li>
        )
      })}</ul>
      <NotSaved error={take.error} />
    </>
  )
}

const Captures = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
  > li {
    display: flex;
    flex-direction: column;
    gap: 6px;
    padding: 4px 0 ${space(1)};
    border-bottom: 1px solid ${color.line};
  }
`
const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 4px ${space(1)};
  button { white-space: normal; text-align: left; }
`
