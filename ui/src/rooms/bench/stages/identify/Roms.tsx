import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { type RomSocket, romSocketsQuery } from '../../../../api/roms'
import { useAccount } from '../../../../api/session'
import { Button } from '../../../../kit/Button'
import { ListTable, Scroll } from '../../../../kit/ListTable'
import { Mark, type MarkKind } from '../../../../kit/Mark'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { font } from '../../../../theme'
import { romName } from '../../../library/roms/romName'
import { NameSet } from './NameSet'
import { ReadOut } from './ReadOut'

const marks: Record<RomSocket['chip']['state'], MarkKind> = { 'not read': 'none', 'read once': 'working', read: 'done',
  'readings differ': 'attention', fading: 'problem' }

/** The sockets for read-only memories: what was read there, what it is, and what does not fit together. */
export function Roms({ machine }: { machine: Machine }) {
  const sockets = useQuery(romSocketsQuery(machine.id))
  const [chosen, setChosen] = useState<string>()
  const [dropped, setDropped] = useState<File[]>([])
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const all = sockets.data ?? []
  const fading = all.filter(({ chip }) => chip.state === 'fading')
  const read = all.filter(({ chip }) => chip.state === 'read').length
  return (
    <Part title="Read-only memories" faint={all.length > 0 && `${String(read)} of ${String(all.length)} read`}
      action={<Link to="/library/roms">all images</Link>}>
      {sockets.error && <Notice tone="stop" word="Not listed.">{messageOf(sockets.error)}</Notice>}
      {fading.map((socket) =>
        <Notice key={keyOf(socket)} tone="stop"
          word={`${socket.designator} is fading.`}>{socket.chip.why} Next: {socket.chip.next}.</Notice>)}
      {sockets.data && all.length === 0 && <p>No sheet of this machine names a read-only memory, as U9 27128-25.</p>}
      {all.length > 0 && (
        <Scroll>
          <ListTable>
            <thead><tr><th>Chip</th><th>Marking</th><th>State</th><th>Content</th>
              <th><span className="only-read">Read out</span></th></tr></thead>
            <tbody>
              {all.map((socket) => (
                <tr
                  key={keyOf(socket)}
                  aria-selected={chosen === keyOf(socket)}
                  onDragOver={(event) => { if (mayWrite) event.preventDefault() }}
                  onDrop={(event) => {
                    if (!mayWrite) return
                    event.preventDefault()
                    setDropped([...event.dataTransfer.files])
                    setChosen(keyOf(socket))
                  }}
                >
                  <td><Mono>{socket.designator}</Mono><br /><Faint>{socket.assembly}</Faint></td>
                  <td><Mono>{socket.marking}</Mono></td>
                  <td>
                    <Mark kind={marks[socket.chip.state]} /> {socket.chip.state}
                    {socket.chip.state !== 'read' && socket.chip.state !== 'fading' && socket.chip.why && <><br />
                      <Faint>{socket.chip.why}</Faint></>}
                  </td>
                  <td>
                    {socket.image && <Link to={`/library/roms/${socket.image.sha256}`}>{romName(socket.image)}</Link>}
                    {socket.image
                      && <> <Faint>{socket.image.bytes.toLocaleString('en')} bytes,
                        CRC-32 {socket.image.crc32}</Faint></>}
                    {socket.mismatches.map((finding) =>
                      <Finding key={finding}><Mark kind="attention" /> {finding}</Finding>)}
                  </td>
                  <td>
                    {(mayWrite || socket.reads.length > 0) && (
                      <Button $tone="quiet" aria-expanded={chosen === keyOf(socket)}
                        aria-label={`${mayWrite ? 'Read out'
                          : 'Readings of'} ${socket.designator} of ${socket.assembly}`}
                            onPress={() => {
                              setDropped([])
                              setChosen(chosen === keyOf(socket) ? undefined : keyOf(socket))
                            }}>
                        {mayWrite ? 'Read out' : 'Readings'}
                      </Button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </ListTable>
        </Scroll>
      )}
      {mayWrite && <NameSet sockets={all} />}
      {all.filter((socket) => keyOf(socket) === chosen).map((socket) => <ReadOut key={keyOf(socket)} dropped={dropped}
        accession={machine.accession} socket={socket} onDone={() => { setChosen(undefined) }} />)}
    </Part>
  )
}

const keyOf = ({ assemblyId, designator }: RomSocket) => `${String(assemblyId)} ${designator}`

const Mono = styled.span`
  font-family: ${font.mono};
`
const Finding = styled.p`
  svg { vertical-align: -3px; }
`
