import { useQuery } from '@tanstack/react-query'
import { Fragment, useState } from 'react'
import styled from 'styled-components'

import type { Schemas } from '../../api/client'
import { collectionQuery, registerQuery, useChangeCollection, useImportNumbers } from '../../api/collection'
import { messageOf } from '../../api/problem'
import { useKept } from '../../data/useDrafts'
import { Button } from '../../kit/Button'
import { EditRecord } from '../../kit/EditRecord'
import { Field, FieldGrid } from '../../kit/Field'
import { ListTable, Scroll } from '../../kit/ListTable'
import { Pick } from '../../kit/Pick'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'
import { Facts, Part } from '../../kit/Part'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { usePanel } from '../../kit/usePanel'
import { font } from '../../theme'

type Collection = Schemas['Collection']

/** The collection's own settings: its name, how its numbers are written, and the numbers that nobody has. */
export function CollectionSettings() {
  const collection = useQuery(collectionQuery)
  const [editing, setEditing] = usePanel('collection', 'keepers')
  if (collection.error) return <Notice tone="stop" word="Not read.">{messageOf(collection.error)}</Notice>
  if (!collection.data) return null
  const { name, accessionPattern, currency, timeZone, mainsVolts, mainsHz, supplyMonths } = collection.data
  return (
    <>
      <Part title="The collection"
        action={<Button $small onPress={() => { setEditing(true) }}>Edit the collection</Button>}>
        {editing ? <Edit collection={collection.data} onDone={() => { setEditing(false) }} /> : (
          <Facts>
            <dt>Name</dt><dd>{name || 'none yet'}</dd>
            <dt>Accession numbers</dt><dd><Mono>{accessionPattern}</Mono></dd>
            <dt>Currency</dt><dd>{currency}</dd>
            <dt>Time zone</dt><dd>{timeZone || `none chosen yet: days are counted in UTC; this device is in ${here}`}</dd>
            <dt>Mains here</dt><dd>{mainsVolts ? [`${String(mainsVolts)} V`, mainsHz && `${String(mainsHz)} Hz`]
              .filter(Boolean).join(', ') : 'not said yet: no supply fed by mains passes the power gate'}</dd>
            <dt>A supply's inspection counts</dt><dd>{supplyMonths ?? 12} months</dd>
          </Facts>
        )}
      </Part>
      <Numbers />
    </>
  )
}

function Edit({ collection, onDone }: { collection: Collection; onDone: () => void }) {
  const change = useChangeCollection()
  const [wrong, setWrong] = useState<Record<string, string>>({})
  const names = { name: 'name', accessionPattern: 'accession numbers', currency: 'currency', timeZone: 'time zone',
    mainsVolts: 'volts of the mains', mainsHz: 'frequency of the mains', supplyMonths: 'months an inspection counts' }
  return (
    <EditRecord keptAs="collection"
      record={collection} change={change} newerIn={(newer) => newer.collection} names={names} onDone={onDone}>
      {({ onSubmit, ...form }) => (
        <RecordForm
          {...form}
          action="Save"
          wrong={wrong}
          onSubmit={(data) => {
            const figures = ['mainsVolts', 'mainsHz', 'supplyMonths'] as const
            const given = figures.map((name) => Number(textOf(data, name).replace(',', '.')))
            const odd = figures.filter((_, i) => !Number.isFinite(given[i]))
            setWrong(Object.fromEntries(odd.map((name) => [name, 'Write a figure, or nothing where nobody knows.'])))
            if (odd.length > 0) return
            const [mainsVolts = 0, mainsHz = 0, supplyMonths = 0] = given
            onSubmit({ name: textOf(data, 'name'), accessionPattern: textOf(data, 'accessionPattern'),
              currency: textOf(data, 'currency'), timeZone: textOf(data, 'timeZone'),
              mainsVolts, mainsHz, supplyMonths })
          }}
        >
          <FieldGrid>
            <Field label="Name of the collection" name="name" defaultValue={collection.name} autoFocus />
            <Field label="Accession numbers" name="accessionPattern" defaultValue={collection.accessionPattern} mono
              hint="EH-{number:4}, or {year}.{lot}.{item}" isRequired />
            <Field label="Currency" name="currency" defaultValue={collection.currency} maxLength={3} mono isRequired />
            <ZoneField chosen={collection.timeZone} />
            <Field label="Mains here, in volts" name="mainsVolts" inputMode="decimal" mono placeholder="230"
              defaultValue={collection.mainsVolts ? String(collection.mainsVolts) : ''} />
            <Field label="Mains here, in hertz" name="mainsHz" inputMode="decimal" mono placeholder="50"
              defaultValue={collection.mainsHz ? String(collection.mainsHz) : ''} />
            <Field label="An inspection of a supply counts, in months" name="supplyMonths" inputMode="numeric" mono
              defaultValue={String(collection.supplyMonths ?? 12)} hint="12 by rule of thumb" />
          </FieldGrid>
        </RecordForm>
      )}
    </EditRecord>
  )
}

/** The zone in which days are counted, of those that the browser knows, or of any other by its name. */
function ZoneField({ chosen }: { chosen?: string }) {
  const [search, setSearch] = useState(chosen === '' ? here : chosen ?? here)
  const words = search.toLowerCase().replaceAll(' ', '_')
  const found = zones.filter(({ text }) => text.toLowerCase().includes(words)).slice(0, mostShown)
  return <Pick label="Time zone, in which days are counted" name="timeZone" items={found} search={search}
    onSearch={setSearch} onPick={(id) => { setSearch((typed) => zones.find((zone) => zone.id === id)?.text ?? typed) }}
    placeholder="Europe/Lisbon" free />
}

const mostShown = 50
const here = Intl.DateTimeFormat().resolvedOptions().timeZone
const zones = ['UTC', ...Intl.supportedValuesOf('timeZone').filter((zone) => zone !== 'UTC')]
  .map((text, id) => ({ id, text }))

const inWords = ({ from, to, count }: { from: string; to: string; count: number }) =>
  count === 1 ? from : `${from} to ${to} (${count.toLocaleString('en')})`

/** Gaps in the numbers, with the way to explain them, and numbers from an older register. */
function Numbers() {
  const register = useQuery(registerQuery)
  const [text, change, forget] = useKept('numbers of an older register', '')
  const [writing, setWriting] = useState(false)
  const take = useImportNumbers()
  const lines = take.data ?? []
  const wrong = lines.filter((line) => line.wrong)
  if (!register.data) return null
  const { given, gaps, explained } = register.data
  return (
    <Part
      title="Register of numbers"
      faint={`${String(given)} given, none of them ever again`}
      action={<Button $small onPress={() => { setWriting(true) }}>Explain gaps, or take over a register</Button>}
    >
      {gaps.length > 0 ? <p>Passed over and not explained: {gaps.slice(0, 60).map((gap, i) =>
        <Fragment key={gap.from}>{i > 0 && ', '}<Run>{inWords(gap)}</Run></Fragment>)}
        {gaps.length > 60 && ` and ${String(gaps.length - 60)} more`}</p>
          : <p>No number is passed over without explanation.</p>}
      {writing && (
        <RecordForm
          keptAs={null}
          error={take.error}
          isPending={take.isPending}
          action={take.variables?.dryRun && take.variables.text === text && lines.length > wrong.length
            ? `Take over ${String(lines.length - wrong.length)} numbers` : 'See what would happen'}
          onSubmit={() => {
            const seen = take.data !== undefined && take.variables.dryRun && take.variables.text === text
            take.mutate({ text, dryRun: !seen }, { onSuccess: () => { if (seen) { forget(); setWriting(false) } } })
          }}
          onCancel={() => { forget(); setWriting(false) }}
        >
          <Field label="Numbers, a line each, with what is known of them behind a semicolon" value={text}
            onChange={(next) => { change(() => next) }} rows={6} mono autoFocus
              placeholder={'EH-0103; given back to the lender in 1999\nEH-0104; number passed over by mistake'} />
          {wrong.length > 0 && (
            <Notice tone="attention" word={`${String(wrong.length)} of ${String(lines.length)} cannot be taken over.`}>
              <ul>{wrong.slice(0, 20).map((line) =>
                <li key={line.line}>line {line.line}, {line.number || 'no number'}: {line.wrong}</li>)}</ul>
            </Notice>
          )}
        </RecordForm>
      )}
      {explained.length > 0 && (
        <details>
          <summary>{explained.length === 1 ? '1 number' : `${String(explained.length)} numbers`} that no machine has
            today</summary>
          <Scroll>
            <ListTable>
              <thead><tr><th>Number</th><th>Why</th></tr></thead>
              <tbody>{explained.map((one) =>
                <tr key={one.number}><td><Mono>{one.number}</Mono></td><td>{one.note}</td></tr>)}</tbody>
            </ListTable>
          </Scroll>
        </details>
      )}
      <Faint>The next number is proposed when a machine is entered.</Faint>
    </Part>
  )
}

const Run = styled.span`
  font-family: ${font.mono};
  font-size: 15px;
  white-space: nowrap;
`
const Mono = styled.span`
  font-family: ${font.mono};
  font-size: 15px;
  overflow-wrap: anywhere;
`
