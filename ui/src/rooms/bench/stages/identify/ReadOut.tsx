import { useEffect, useEffectEvent, useRef, useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type RomSocket, useAddRomFiles, useExceptRead, useVoidRead } from '../../../../api/roms'
import { useAccount } from '../../../../api/session'
import { Button, Buttons } from '../../../../kit/Button'
import { Field, FieldGrid } from '../../../../kit/Field'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { color, space } from '../../../../theme'
import { ThroughReader } from './ThroughReader'

type Props = {
  accession: string
  socket: RomSocket
  /** Files that were dropped onto the chip in the list. */
  dropped: File[]
  onDone: () => void
}

/** The readings of one chip, and the ways to add one: files, or the reader on the bench. */
export function ReadOut({ accession, socket, dropped, onDone }: Props) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [label, setLabel] = useState(socket.reads[socket.reads.length - 1]?.label ?? '')
  const [exception, setException] = useState('')
  const [over, setOver] = useState(false)
  const panel = useRef<HTMLElement>(null)
  const choose = useRef<HTMLInputElement>(null)
  const add = useAddRomFiles()
  useEffect(() => {
    panel.current?.scrollIntoView({ block: 'nearest' })
    panel.current?.querySelector<HTMLElement>('input, button')?.focus({ preventScroll: true })
  }, [])
  const send = (files: File[]) => {
    if (files.length > 0)
      add.mutate({ files, reading: { assemblyId: socket.assemblyId, designator: socket.designator, label, exception } })
  }
  const take = useEffectEvent((files: File[]) => { send(files) })
  useEffect(() => { take(dropped) }, [dropped])
  return (
    <Panel ref={panel} aria-label={`Readings of ${socket.designator}`}>
      <Buttons>
        <strong>{socket.designator} of {socket.assembly}</strong>
        <Faint>{[socket.marking,
          socket.device && `a ${socket.device.number} holds ${socket.device.bytes.toLocaleString('en')} bytes`].filter(
            Boolean).join(' · ')}</Faint>
        <Button $small onPress={onDone}>Close</Button>
      </Buttons>
      {socket.chip.next && <p>Next: {socket.chip.next}.</p>}
      {mayWrite && (
        <>
          <FieldGrid>
            <Field label="What stands on the chip" value={label} onChange={setLabel} placeholder="MON V1.2 EVEN" mono />
            <Field label="Why no second reading can be had" value={exception} onChange={setException}
              hint="Only where that is so; it stays with the reading" />
          </FieldGrid>
          <Drop
            data-over={over || undefined}
            onDragOver={(event) => { event.preventDefault(); setOver(true) }}
            onDragLeave={() => { setOver(false) }}
            onDrop={(event) => { event.preventDefault(); setOver(false); send([...event.dataTransfer.files]) }}
          >
            <Buttons>
              <Button $small isPending={add.isPending} onPress={() => choose.current?.click()}>
                Add what was read
              </Button>
              <span>or drop files here: binary, hex records, S-records, or a zip of them, up to 64 MB. A content counts
                once two readings in a row are alike.</span>
            </Buttons>
            <input ref={choose} type="file" multiple hidden aria-label="Files that were read"
              onChange={(event) => { send([...(event.target.files ?? [])]); event.target.value = '' }} />
          </Drop>
          <NotSaved error={add.error} />
          {add.data && (
            <ul role="status">
              {add.data.map((one, i) => (
                <li key={String(i)}>
                  {one.file}, {one.format}, for {one.designator}: {one.chip}
                    {one.known ? `; it is ${one.known}` : one.isNew ? '; a content that was not known yet' : ''}
                  {one.warnings.map((warning) => <Faint as="p" key={warning}>{warning}</Faint>)}
                </li>
              ))}
            </ul>
          )}
          <ThroughReader accession={accession} socket={socket} label={label} exception={exception} />
        </>
      )}
      <Readings socket={socket} mayWrite={mayWrite} />
    </Panel>
  )
}

function Readings({ socket, mayWrite }: { socket: RomSocket; mayWrite: boolean }) {
  const [excepting, setExcepting] = useState<number>()
  const except = useExceptRead()
  const voiding = useVoidRead()
  const first = socket.chip.sha256
  if (socket.reads.length === 0) return <p>It was not read yet.</p>
  return (
    <ol aria-label="Readings">
      {socket.reads.map((read) => (
        <li key={read.id}>
          {read.readOn} {read.method}: <Link to={`/library/roms/${read.sha256}`}>{read.sha256.slice(0, 8)}</Link>
          {first && read.sha256 !== first && <> <Link to={`/library/roms/${first}?against=${read.sha256}`}>
            compare with what counts
          </Link></>}
          {read.label && `, label "${read.label}"`}{read.exception && `, counts alone: ${read.exception}`} <Faint>
            {read.by}
          </Faint>{' '}
          {mayWrite && !read.exception && socket.chip.state !== 'read'
            && <Button $tone="quiet" aria-label={`Let the reading of ${read.readOn} count alone`}
              onPress={() => { setExcepting(read.id) }}>count alone</Button>}
          {mayWrite && <Button $tone="quiet" aria-label={`Delete the reading of ${read.readOn}`}
            isPending={voiding.isPending} onPress={() => { voiding.mutate(read.id) }}>Delete</Button>}
          {excepting === read.id && (
            <RecordForm
              keptAs={`reading ${String(excepting)} counts`}
              error={except.error}
              isPending={except.isPending}
              action="Let it count alone"
              onSubmit={(form) => { except.mutate({ id: read.id, why: textOf(form, 'why') },
                { onSuccess: () => { setExcepting(undefined) } }) }}
              onCancel={() => { setExcepting(undefined) }}
            >
              <Field label="Why no second reading can be had" name="why" isRequired autoFocus />
            </RecordForm>
          )}
        </li>
      ))}
    </ol>
  )
}

const Panel = styled.section`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  padding: ${space(1)};
  border: 1px solid ${color.slate};
  background: ${color.sheet};
`
const Drop = styled.div`
  padding: ${space(1)};
  border: 1px dashed ${color.edge};
  color: ${color.faint};
  &[data-over] { border-color: ${color.slate}; background: ${color.slateGround}; }
`
