import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'

import { messageOf } from '../../../../api/problem'
import { chipReadingQuery, readerQuery, type RomSocket, useStartReading, useTurnReading } from '../../../../api/roms'
import { ReaderStandIn } from '../../../../features/instruments/StandIn'
import { Button, Buttons } from '../../../../kit/Button'
import { Field, FieldGrid } from '../../../../kit/Field'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { color } from '../../../../theme'

/** Reads the chip through the reader on the bench, twice, with progress; what stopped can be gone on with. */
export function ThroughReader({ accession, socket, label, exception }: { accession: string; socket: RomSocket;
  label: string; exception: string }) {
  const reader = useQuery(readerQuery)
  const [device, setDevice] = useState(socket.device?.number ?? '')
  const [running, setRunning] = useState(0)
  const reading = useQuery(chipReadingQuery(running))
  const start = useStartReading()
  const turn = useTurnReading(running)
  if (!reader.data?.address) return null
  const { name, trouble } = reader.data
  const state = reading.data?.state
  return (
    <Frame aria-label="Through the reader">
      <strong>Through the reader</strong> <Faint>{name || reader.data.address}</Faint>
      {trouble && <Notice tone="attention" word="The reader does not answer.">{trouble}</Notice>}
      <ReaderStandIn likely={`${accession} ${socket.designator}`} />
      {!trouble && (
        <FieldGrid>
          <Field label="Device in the reader" value={device} onChange={setDevice} mono placeholder="27128" />
          <Start>
            <Button
              $small
              isPending={start.isPending}
              isDisabled={state === 'running' || device.trim() === ''}
              onPress={() => { start.mutate({ assemblyId: socket.assemblyId, designator: socket.designator, device,
                label, exception }, { onSuccess: ({ id }) => { setRunning(id) } }) }}
            >
              Read {socket.designator} twice
            </Button>
          </Start>
        </FieldGrid>
      )}
      {start.error && <Notice tone="stop" word="Not begun.">{messageOf(start.error)}</Notice>}
      {turn.error && <Notice tone="stop" word="Not done.">{messageOf(turn.error)}</Notice>}
      {reading.data && (
        <div role="status">
          <Bar max={2 * reading.data.size} value={reading.data.done} aria-label="Read so far" />
          <p>
            {reading.data.done.toLocaleString('en')} of {(2 * reading.data.size).toLocaleString('en')} bytes
            {reading.data.again > 0 && `, ${String(reading.data.again)} blocks read again`}
          </p>
        </div>
      )}
      {state === 'running' && <Buttons><Button $small onPress={() => { turn.mutate('stop') }}>Stop</Button></Buttons>}
      {state === 'stopped' && (
        <>
          <Notice tone="attention" word="Stopped.">{reading.data?.note}</Notice>
          <Buttons><Button $small isPending={turn.isPending} onPress={() => { turn.mutate('resume') }}>
            Go on
          </Button></Buttons>
        </>
      )}
      {state === 'refused' && <Notice tone="stop" word="Not accepted.">{reading.data?.note}</Notice>}
      {state === 'done' && <p role="status"><strong>Accepted:</strong> {reading.data?.note}.</p>}
    </Frame>
  )
}

const Frame = styled.section`
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding-left: 8px;
  border-left: 3px solid ${color.line};
`
const Start = styled.div`
  align-self: end;
`
const Bar = styled.progress`
  width: 100%;
  accent-color: ${color.slate};
`
