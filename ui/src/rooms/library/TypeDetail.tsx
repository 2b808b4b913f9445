import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type LibraryType, occurrencesQuery, type OwnType, useChangeType, useForgetType } from '../../api/library'
import { occurrencesOf } from '../../frame/offers'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { Button, Buttons } from '../../kit/Button'
import { EditRecord } from '../../kit/EditRecord'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'
import { spotAddress } from '../../kit/spot'
import { color, font, space } from '../../theme'
import { TypeForm } from './TypeForm'

/** Of the lines on which a type stands, so many are shown with it. */
const few = 12

/** One type: where it comes from, where it occurs, and for an own one what can be done with it. */
export function TypeDetail({ type, onClose }: { type: LibraryType; onClose: () => void }) {
  const account = useAccount()
  const found = useQuery(occurrencesQuery(type.number))
  const forget = useForgetType()
  const [editing, setEditing] = useState(false)
  const { own } = type
  if (own && editing) return <EditType own={own} onDone={() => { setEditing(false) }} />
  return (
    <Panel aria-label={type.number}>
      <h2>{type.number}</h2>
      <p>{[type.function, type.family, type.package].filter(Boolean)
        .join(', ')}. <Faint>Source: {type.source}.</Faint></p>
      {type.supply && <p>Supply {type.supply} V.</p>}
      {type.clockMHz ? <p>Rated clock {type.clockMHz} MHz{own ? '' : ', without a grade'}.</p> : null}
      {own?.maker && <p>Made by <Link to={`/library/makers?search=${encodeURIComponent(own.maker)}`}>
        {own.maker}
      </Link>.</p>}
      {own?.currents && <p>Draws {own.currents} mA, typically and at most.</p>}
      {own?.substitutes && <p>In its place: {own.substitutes}.</p>}
      {own?.ageing && <p>Ages: {own.ageing}.</p>}
      {own?.documents && <p style={{ whiteSpace: 'pre-line' }}>{own.documents}</p>}
      {own?.notes && <p>{own.notes}</p>}
      {found.error && <Notice tone="stop" word="Not listed.">{messageOf(found.error)}</Notice>}
      {found.data?.length === 0 && <p>It stands on no sheet.</p>}
      <ul>
        {found.data?.slice(0, few).map((line) => (
          <li key={`${String(line.assemblyId)} ${String(line.line)}`}>
            <Link to={spotAddress(line.machineId, { assembly: line.assemblyId, line: line.line })}>
              {line.machineId ? `${line.accession} ${line.machine}` : 'in no machine'}, {line.assembly}, line {line.line}
            </Link>: {line.count} x <code>{line.marking}</code>
          </li>
        ))}
      </ul>
      {found.data && found.data.length > few && <p><Link to={occurrencesOf(type.number)}>All
        {' '}{type.occurrences.toLocaleString('en')} occurrences</Link></p>}
      {forget.error && <Notice tone="stop" word="Not forgotten.">{messageOf(forget.error)}</Notice>}
      <Buttons>
        {own && account?.mayWriteSheets && <Button onPress={() => { setEditing(true) }}>Edit the type</Button>}
        {own && account?.mayKeepTheRecord && (
          <Button isPending={forget.isPending} onPress={() => { forget.mutate(own, { onSuccess: onClose }) }}>
            Take it out of the library
          </Button>
        )}
        <Button onPress={onClose}>Close</Button>
      </Buttons>
    </Panel>
  )
}

const names: Partial<Record<keyof OwnType, string>> = {
  number: 'number', function: 'what it does', class: 'class', words: 'words', bits: 'bits', package: 'package',
  clockMHz: 'rated clock', typicalMilliamps: 'current', notes: 'notes', maker: 'maker', currents: 'current by rail',
    ageing: 'how it ages', substitutes: 'what can take its place', documents: 'documents',
}

function EditType({ own, onDone }: { own: OwnType; onDone: () => void }) {
  const change = useChangeType(own.id)
  return (
    <EditRecord keptAs={`type ${String(own.id)}`}
      record={own} change={change} newerIn={(newer) => newer.ownType} names={names} onDone={onDone}>
      {(form) => <TypeForm start={own} action="Save" {...form} />}
    </EditRecord>
  )
}

const Panel = styled.section`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  padding: ${space(2)};
  border: 1px solid ${color.line};
  border-left: 3px solid ${color.slate};
  background: ${color.sheet};
  h2 { font: 400 20px ${font.mono}; color: ${color.slate}; }
  code { font: 14px ${font.mono}; }
`
