import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'

import { type Connector, type ConnectorView, type KnownSocket, knownSocketsQuery, useChangeConnector, useMapConnector,
  usePlugConnector, useVoidConnector, type Wiring, wiringDrawing, wiringList } from '../../../../api/openup'
import { Button, Buttons } from '../../../../kit/Button'
import { EditRecord } from '../../../../kit/EditRecord'
import { Scroll, StackedTable, Whole } from '../../../../kit/ListTable'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { color } from '../../../../theme'
import { ConnectorForm } from './ConnectorForm'
import { KnownSockets, knownWords } from './KnownSockets'
import { WarningList } from './WarningList'

type Props = { machineId: number; wiring: Wiring; boards: string[]; mayWrite: boolean }

/** The connector map: which plug goes where and which way round, with what may be mistaken. */
export function Connectors({ machineId, wiring, boards, mayWrite }: Props) {
  const add = useMapConnector(machineId)
  const sockets = useQuery(knownSocketsQuery(machineId)).data ?? []
  const [adding, setAdding] = useState<Partial<Connector>>()
  const [editing, setEditing] = useState<number>()
  const { connectors } = wiring
  const edited = connectors.find(({ id }) => id === editing)
  return (
    <Part
      title="Connectors"
      faint={connectors.length > 0 ? `${String(connectors.length)} on the map, ${String(wiring.open)} open` : undefined}
      action={
        <>
          {connectors.length > 0 && <a href={wiringList(machineId)} download>Wiring list (CSV)</a>}
          {mayWrite && <Button $small onPress={() => { setAdding({}) }}>Map a connector</Button>}
        </>
      }
    >
      {adding && (
        <ConnectorForm
          keptAs={`connector of ${String(machineId)} ${adding.toBoard ?? ''} ${adding.name ?? ''}`}
          key={`${adding.toBoard ?? ''} ${adding.name ?? ''}`}
          machineId={machineId}
          start={adding}
          boards={boards}
          error={add.error}
          isPending={add.isPending}
          action="Put it on the map"
          onSubmit={(fields) => { add.mutate(fields, { onSuccess: () => { setAdding(undefined) } }) }}
          onCancel={() => { setAdding(undefined); add.reset() }}
        />
      )}
      {edited && <Edit key={edited.id} machineId={machineId} connector={edited} boards={boards}
        onDone={() => { setEditing(undefined) }} />}
      <WarningList title="" warnings={wiring.warnings} />
      {connectors.length === 0 ? (
        <p><Faint>No connector is mapped yet. Map each before it is unplugged: from where to where, how many pins, and
          which way round.</Faint></p>
      ) : (
        <>
          <Scroll>
            <StackedTable>
              <thead><tr><th>Name</th><th>From, to</th><th>Pins</th><th>Which way round</th><th>State</th>
                <th><span className="only-read">Change</span></th></tr></thead>
              <tbody>{connectors.map((one) =>
                <Row key={one.id} one={one} known={sockets.find(({ mappedId }) => mappedId === one.id)}
                  mayWrite={mayWrite} onEdit={() => { setEditing(one.id) }} />)}</tbody>
            </StackedTable>
          </Scroll>
          {wiring.boards.filter(Boolean).map((board) => (
            <Drawing
              key={board}
              src={wiringDrawing(machineId, board,
                connectors.map(({ id, version }) => `${String(id)}.${String(version)}`).join('-'))}
                  alt={`Sockets on ${board}: pins covered by plugs filled, free pins hollow, pin 1 square`}
            />
          ))}
        </>
      )}
      <KnownSockets sockets={sockets.filter(({ mappedId }) => mappedId === 0)} mayWrite={mayWrite}
        onMap={({ name, kind, board, for: serves }) => {
          setAdding({ name, kind, toBoard: board, toPlace: name, note: serves && `for ${serves}` })
        }} />
    </Part>
  )
}

function Row({ one, known, mayWrite, onEdit }: { one: ConnectorView; known?: KnownSocket; mayWrite: boolean;
  onEdit: () => void }) {
  const plug = usePlugConnector()
  const voiding = useVoidConnector()
  const error = plug.error ?? voiding.error
  const way = [one.pin1 && `pin 1: ${one.pin1}`, one.key && `key: ${one.key}`,
    one.colours && `wires: ${one.colours}`].filter(Boolean).join('; ')
  const free = one.free.socket.length + one.free.plug.length
  return (
    <tr>
      <Whole><strong>{one.name}</strong>{one.kind && <><br /><Faint>{one.kind}</Faint></>}</Whole>
      <td>
        {one.socketOnly ? <Faint>nothing plugged in</Faint> : [one.fromBoard, one.fromPlace].filter(Boolean).join(' ')}
        <br /><Faint>to {[one.toBoard, one.toPlace].filter(Boolean).join(' ') || 'not said yet'}</Faint>
        {one.cable && <><br /><Faint>{one.cable}</Faint></>}
        {known && <><br /><Faint>{knownWords(known)}</Faint></>}
      </td>
      <td>{one.plugPins && !one.socketOnly ? `${String(one.plugPins)} pins in ${String(one.socketPins ?? 0)}`
        : (one.socketPins ?? 0) || ''}{free > 0 && <><br /><Faint>{free} free</Faint></>}</td>
      <td>{one.never ? <strong>Plug in nothing: {one.never}</strong> : way}</td>
      <Whole>{one.socketOnly ? 'free' : !one.open ? 'connected' : one.foundOpen ? 'found open' : <strong>open</strong>}</Whole>
      <td>
        {mayWrite && (
          <Buttons>
            {!one.socketOnly && <Button $tone="quiet" aria-label={`${one.open ? 'Plug in' : 'Unplug'} ${one.name}`}
              isPending={plug.isPending}
                onPress={() => { plug.mutate({ id: one.id, version: one.version, open: !one.open }) }}>{one.open
                  ? 'Plug in' : 'Unplug'}</Button>}
            <Button $tone="quiet" aria-label={`Edit ${one.name}`} onPress={onEdit}>Edit</Button>
            <Button $tone="quiet" aria-label={`Delete ${one.name}`} isPending={voiding.isPending}
              onPress={() => { voiding.mutate(one) }}>Delete</Button>
          </Buttons>
        )}
        <NotSaved error={error} />
      </td>
    </tr>
  )
}

function Edit({ machineId, connector, boards, onDone }: { machineId: number; connector: ConnectorView;
  boards: string[]; onDone: () => void }) {
  const change = useChangeConnector(connector.id)
  const names = { name: 'name', fromBoard: 'from', toBoard: 'to', plugPins: 'pins of the plug',
    socketPins: 'pins of the socket', offset: 'moved by', pin1: 'pin 1', key: 'key', colours: 'wires',
      never: 'must stay free', foundOpen: 'found open' }
  return (
    <EditRecord keptAs={`connector ${String(connector.id)}`}
      record={connector} change={change} newerIn={(newer) => newer.connector} names={names} onDone={onDone}>
      {(form) => <ConnectorForm machineId={machineId} start={connector} boards={boards} action="Save" {...form} />}
    </EditRecord>
  )
}

const Drawing = styled.img`
  display: block;
  width: 100%;
  border: 1px solid ${color.line};
`
