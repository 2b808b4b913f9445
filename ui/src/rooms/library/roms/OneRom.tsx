import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'

import { messageOf } from '../../../api/problem'
import { romFileOf, type RomImage, romQuery, type RomView, useNameRom, useSplitRom } from '../../../api/roms'
import { useAccount } from '../../../api/session'
import { Button, Buttons } from '../../../kit/Button'
import { EditRecord } from '../../../kit/EditRecord'
import { Field, FieldGrid, Tick } from '../../../kit/Field'
import { Notice } from '../../../kit/Notice'
import { Faint, Page, Title } from '../../../kit/Page'
import { Facts, Part } from '../../../kit/Part'
import { Skeleton } from '../../../kit/Skeleton'
import { RecordForm, textOf } from '../../../kit/RecordForm'
import { useFilters } from '../../../kit/useFilters'
import { Against } from './Against'
import { Bytes } from './Bytes'
import { Code } from './Code'
import { romName } from './romName'

/** One content of a read-only memory: its sums, what is in it, who has it. */
export default function OneRom() {
  const sha256 = useParams().sha256 ?? ''
  const rom = useQuery(romQuery(sha256))
  if (rom.isPending) return <Page><Skeleton what="The ROM image" lines={14} /></Page>
  if (!rom.data)
    return <Page><Title>ROM image</Title><Notice tone="stop" word="Not read.">{messageOf(rom.error)}</Notice></Page>
  return <Shown key={sha256} rom={rom.data} />
}

function Shown({ rom }: { rom: RomView }) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [parameters, setParameters] = useFilters()
  const against = parameters.get('against') ?? ''
  const [naming, setNaming] = useState(false)
  const [offset, setOffset] = useState(0)
  const { inspection } = rom
  return (
    <Page>
      <Title><Link to="/library/roms">ROM images</Link> / {romName(rom)}</Title>
      {against && rom.mayHave && <Against a={rom} b={against} onClose={() => { setParameters({}) }} />}
      <Part title="What it is"
        action={mayWrite && <Button $small onPress={() => { setNaming(true) }}>
          {rom.name ? 'Edit' : 'Name it'}
        </Button>}>
        {naming && <Naming rom={rom} onDone={() => { setNaming(false) }} />}
        <Facts>
          {rom.note && <><dt>Note</dt><dd>{rom.note}</dd></>}
          {rom.madeFrom && <><dt>Made here from</dt><dd>{rom.madeFrom}</dd></>}
          <dt>Size</dt>
            <dd>{rom.bytes.toLocaleString('en')} bytes{inspection.repeats > 1
              && `; the content is ${inspection.effectiveBytes.toLocaleString('en')} bytes, ${String(
                inspection.repeats)} times`}</dd>
          <dt>CRC-32</dt><dd><code>{rom.crc32}</code></dd>
          <dt>SHA-1</dt><dd><code>{rom.sha1}</code></dd>
          <dt>SHA-256</dt><dd><code>{rom.sha256}</code></dd>
          <dt>Sum of the bytes</dt><dd><code>{inspection.sum16}</code></dd>
          <dt>Blank</dt>
            <dd>{inspection.blankBytes.toLocaleString('en')} bytes in {inspection.blankRuns.length} stretches</dd>
          {inspection.years.length > 0 && <><dt>Years claimed</dt><dd>{inspection.years.join(', ')}</dd></>}
          <dt>Bytes are for</dt><dd>{rom.public ? 'everybody' : 'staff; the sums are for everybody'}</dd>
        </Facts>
        {inspection.warnings.map((warning) => <Notice key={warning} tone="attention" word="Look.">{warning}</Notice>)}
        {rom.sameContent.map((other) => <p key={other.sha256}>The same content in another number of
          copies: <Link
            to={`/library/roms/${other.sha256}`}>{romName(other)}, {other.bytes.toLocaleString('en')} bytes</Link></p>)}
      </Part>
      <Part title="Who has it">
        {rom.holders.length === 0 && <p>In no socket was it read last.</p>}
        <ul>
          {rom.holders.map((holder) => (
            <li key={`${String(holder.assemblyId)} ${holder.designator}`}>
              {holder.machineId
                ? <Link to={`/bench/${String(holder.machineId)}/identify`}>{holder.accession} {holder.machine}</Link>
                  : 'in no machine'}: {holder.assembly}, {holder.designator}
                    {holder.label && `, label "${holder.label}"`} <Faint>read on {holder.readOn}</Faint>
            </li>
          ))}
        </ul>
      </Part>
      {rom.mayHave ? (
        <>
          <Bytes rom={rom} offset={offset} onOffset={setOffset} />
          <Code rom={rom} onOffset={setOffset} />
          <Files rom={rom} mayWrite={mayWrite} />
        </>
      ) : <p>Its bytes are kept for staff.</p>}
    </Page>
  )
}

function Naming({ rom, onDone }: { rom: RomImage; onDone: () => void }) {
  const mayPublish = useAccount()?.mayKeepTheRecord ?? false
  const [isPublic, setPublic] = useState(rom.public ?? false)
  const change = useNameRom(rom.sha256)
  return (
    <EditRecord keptAs={`ROM ${rom.sha256}`} record={rom} change={change} newerIn={(newer) => newer.rom}
      names={{ name: 'name', romVersion: 'version', note: 'note' }} onDone={onDone}>
      {({ onSubmit, ...form }) => (
        <RecordForm {...form} action="Save"
          onSubmit={(data) => { onSubmit({ name: textOf(data, 'name'), romVersion: textOf(data, 'romVersion'),
            note: textOf(data, 'note'), public: isPublic }) }}>
          <FieldGrid>
            <Field label="Name" name="name" defaultValue={rom.name} placeholder="Monitor" autoFocus />
            <Field label="Version" name="romVersion" defaultValue={rom.romVersion} placeholder="1.1" mono />
            <Field label="Note" name="note" defaultValue={rom.note} rows={2} />
          </FieldGrid>
          {mayPublish && <Tick label="Everybody may have the bytes" isOn={isPublic} onChange={setPublic} />}
        </RecordForm>
      )}
    </EditRecord>
  )
}

function Files({ rom, mayWrite }: { rom: RomView; mayWrite: boolean }) {
  const split = useSplitRom(rom.sha256)
  const navigate = useNavigate()
  return (
    <Part title="Take it away">
      <Buttons>
        <a href={romFileOf(rom.sha256, 'bin')} download>binary</a>
        <a href={romFileOf(rom.sha256, 'ihex')} download>hex records</a>
        <a href={romFileOf(rom.sha256, 'srec')} download>S-records</a>
        {mayWrite && [2, 4].map((lanes) => (
          <Button key={lanes} $small isPending={split.isPending}
            onPress={() => { split.mutate(lanes, { onSuccess: () => void navigate('/library/roms?search=') }) }}>Take
              apart into {lanes} lanes</Button>
        ))}
      </Buttons>
      {split.error && <Notice tone="stop" word="Not taken apart.">{messageOf(split.error)}</Notice>}
    </Part>
  )
}
