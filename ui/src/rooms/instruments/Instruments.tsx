import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import { consolePortQuery, usePlayConsole } from '../../api/console'
import { meterQuery, useTouchPoint } from '../../api/judge'
import { messageOf } from '../../api/problem'
import { readerQuery, usePrepareStandIn } from '../../api/roms'
import { useAccount } from '../../api/session'
import { Button, Buttons } from '../../kit/Button'
import { Choice, FieldGrid } from '../../kit/Field'
import { Mark } from '../../kit/Mark'
import { Notice } from '../../kit/Notice'
import { Faint, Page, Title } from '../../kit/Page'
import { Facts, Part } from '../../kit/Part'

/** The instruments on the bench: how they are connected, and what a stand-in for one is told. */
export default function Instruments() {
  const mayUse = useAccount()?.mayWriteSheets ?? false
  return (
    <Page>
      <Title>Instruments</Title>
      {mayUse ? <><MeterPart /><ReaderPart /><ConsolePortPart /></> : <p>Instruments are used by technicians and curators.</p>}
    </Page>
  )
}

function MeterPart() {
  const meter = useQuery(meterQuery)
  const touch = useTouchPoint()
  const { address = '', name = '', trouble = '', points = [], faults = [], at = '', fault = '' } = meter.data ?? {}
  return (
    <Part title="Meter" faint="Takes the readings of a series; SCPI over TCP">
      <Connection what="meter" address={address} name={name} trouble={trouble} option="--meter 127.0.0.1:5025"
        isAsking={meter.isFetching} error={meter.error} onAsk={() => void meter.refetch()} />
      {points.length > 0 && (
        <FieldGrid>
          <Choice label="Leads of the stand-in" value={at} options={points.map((value) => ({ value, text: value }))}
            onChange={(point) => { touch.mutate({ point, fault: '' }) }} />
          <Choice label="What the meter gets wrong" value={fault}
            options={faults.map((value) => ({ value, text: value }))}
            onChange={(next) => { touch.mutate({ point: '', fault: next }) }} />
        </FieldGrid>
      )}
      {touch.error && <Notice tone="stop" word="Not told.">{messageOf(touch.error)}</Notice>}
    </Part>
  )
}

function ReaderPart() {
  const reader = useQuery(readerQuery)
  const prepare = usePrepareStandIn()
  const { address = '', name = '', trouble = '', chips = [], faults = [], holds = '', fault = '' } = reader.data ?? {}
  return (
    <Part title="Reader of chips" faint="Reads ROMs, twice">
      <Connection what="reader" address={address} name={name} trouble={trouble} option="--reader 127.0.0.1:7071"
        isAsking={reader.isFetching} error={reader.error} onAsk={() => void reader.refetch()} />
      {chips.length > 0 && (
        <FieldGrid>
          <Choice label="Chip in the stand-in" value={holds} options={chips.map((value) => ({ value, text: value }))}
            onChange={(chip) => { prepare.mutate({ chip, fault: '' }) }} />
          <Choice label="What the reader gets wrong" value={fault}
            options={faults.map((value) => ({ value, text: value }))}
            onChange={(next) => { prepare.mutate({ chip: '', fault: next }) }} />
        </FieldGrid>
      )}
      {prepare.error && <Notice tone="stop" word="Not told.">{messageOf(prepare.error)}</Notice>}
    </Part>
  )
}

function ConsolePortPart() {
  const port = useQuery(consolePortQuery)
  const play = usePlayConsole()
  const { address = '', trouble = '', profiles = [], profile = '', listening = 0 } = port.data ?? {}
  return (
    <Part title="Console" faint="A port server on the network, raw or by telnet">
      <Connection what="console" address={address} name={profile && 'Estuary bench stand-in console'} trouble={trouble}
        option="--console telnet://127.0.0.1:7073" isAsking={port.isFetching} error={port.error}
        onAsk={() => void port.refetch()} />
      {listening > 0 && <p>Somebody listens to it now.</p>}
      {profiles.length > 0 && (
        <Choice label="What the stand-in's console is" value={profile}
          options={profiles.map((value) => ({ value, text: value }))} onChange={(next) => { play.mutate(next) }} />
      )}
      {play.error && <Notice tone="stop" word="Not told.">{messageOf(play.error)}</Notice>}
      {profiles.length > 0 && <p>To practise the ladder and diagnosis on a machine that is none: <Link to="/practice">
        Practice</Link>.</p>}
    </Part>
  )
}

type Asked = { what: string; address: string; name: string; trouble: string; option: string; isAsking: boolean;
  error: Error | null; onAsk: () => void }

function Connection({ what, address, name, trouble, option, isAsking, error, onAsk }: Asked) {
  if (error) return <Notice tone="stop" word="Not asked.">{messageOf(error)}</Notice>
  if (!address && !isAsking)
    return <p>No {what} is set up. Start the application with <code>{option}</code>, at the address of yours.</p>
  return (
    <>
      <Facts>
        <dt>Address</dt><dd><code>{address}</code></dd>
        <dt>It calls itself</dt><dd>{name || <Faint>nothing yet</Faint>}</dd>
        <dt>State</dt>
        <dd role="status"><Mark kind={trouble ? 'problem' : isAsking ? 'working' : 'done'} />
          {' '}{trouble || (isAsking ? 'it is asked' : 'it answers')}</dd>
      </Facts>
      <Buttons><Button $small isPending={isAsking} onPress={onAsk}>Ask it again</Button></Buttons>
    </>
  )
}
