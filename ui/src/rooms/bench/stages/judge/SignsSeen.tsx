import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { useLocation } from 'react-router'
import styled from 'styled-components'

import { assembliesQuery } from '../../../../api/assemblies'
import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { type Sighting, type SightingFields, type SignKind, type Signs, signReadingQuery, signsQuery, useSeeSign,
  useVoidSighting } from '../../../../api/signs'
import { Button } from '../../../../kit/Button'
import { Choice, Field, FieldGrid } from '../../../../kit/Field'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { RecordForm, textOf } from '../../../../kit/RecordForm'
import { useKept } from '../../../../data/useDrafts'
import { useSettled } from '../../../../kit/useSettled'
import { usePanel } from '../../../../kit/usePanel'
import { LampSwitches } from '../../../../features/signs/LampSwitches'
import { Cards, Said, SignShown } from '../../../../features/signs/SignTable'
import { WhatItMeans } from '../../../../features/signs/WhatItMeans'
import { color, space } from '../../../../theme'

/** What the machine shows: what is expected of it with its cards, and what was seen, with what that means. */
export function SignsSeen({ machine, mayWrite }: { machine: Machine; mayWrite: boolean }) {
  const signs = useQuery(signsQuery(machine.id))
  const [adding, setAdding] = usePanel('signs')
  const place = useRef<HTMLDivElement>(null)
  const isAskedFor = useLocation().hash === '#signs'
  const isRead = signs.isSuccess
  useEffect(() => { if (isAskedFor && isRead) place.current?.scrollIntoView() }, [isAskedFor, isRead])
  const told = signs.data
  return (
    <div ref={place} id="signs">
      <Part title="Signs" faint="Lamps, beeps, screens and codes"
        action={mayWrite && !adding && told && <Button $small onPress={() => { setAdding(true) }}>Note what it
          shows</Button>}>
        {signs.error && <Notice tone="stop" word="Not read.">{messageOf(signs.error)}</Notice>}
        {adding && told && <See machine={machine} signs={told} onDone={() => { setAdding(false) }} />}
        {told && <Expected signs={told} />}
        {told?.seen.length === 0 && <p><Faint>Nobody has noted yet what it shows.</Faint></p>}
        {told && told.seen.length > 0 && <Seen aria-label="Seen so far">{told.seen.map((one) =>
          <One key={one.id} one={one} mayWrite={mayWrite} />)}</Seen>}
        {told?.more && <p><Faint>There is more that was seen than is listed here.</Faint></p>}
      </Part>
    </div>
  )
}

/** What a sound machine with these cards shows. */
function Expected({ signs }: { signs: Signs }) {
  if (signs.expected.length === 0) {
    return <p><Faint>{signs.lists.length === 0
      ? 'No signs are listed for its model or its cards; they are written there, a line each.'
      : 'The lists of its model and cards do not say what a sound machine shows.'}</Faint></p>
  }
  return (
    <ul aria-label="What it should show">{signs.expected.map((one) => (
      <li key={`${String(one.of)} ${String(one.line)}`}>
        {one.state || 'any time'}: <SignShown sign={one} row={signs.lists[one.of]?.table.row ?? []} /> {one.meaning}
        <Faint> ({signs.lists[one.of]?.of})</Faint>
        {one.holds === 'unknown' && <><br /><Faint>perhaps: {one.why}</Faint></>}
        <Cards sign={one} />
      </li>
    ))}</ul>
  )
}

function One({ one, mayWrite }: { one: Sighting; mayWrite: boolean }) {
  const voiding = useVoidSighting()
  return (
    <li>
      <Line>
        <span>{one.on} <Faint>{one.kind}{one.during && `, ${one.during}`}{one.assembly && `, on ${one.assembly}`}</Faint>{' '}
          <Said>{one.shown}</Said> <Faint>{one.by}</Faint></span>
        {mayWrite && <Button $tone="quiet" aria-label={`Delete ${one.kind} ${one.shown}`}
          isPending={voiding.isPending} onPress={() => { voiding.mutate(one) }}>Delete</Button>}
      </Line>
      <WhatItMeans read={one} />
      {one.note && <p>{one.note}</p>}
      {voiding.error && <Notice tone="stop" word="Not done.">{messageOf(voiding.error)}</Notice>}
    </li>
  )
}

const kinds: { value: SignKind; text: string }[] = [
  { value: 'lamps', text: 'lamps' }, { value: 'beeps', text: 'beeps' }, { value: 'screen', text: 'text on the screen' },
  { value: 'code', text: 'code' },
]
const hints: Record<SignKind, string> = {
  lamps: '0 dark, 1 lit, * blinking, ? not looked at, from the left; or the names of those that are lit',
  beeps: '1 long 2 short · short short pause long · 1-3-2 · none',
  screen: 'As it stands there; nothing, where there was none', code: '0x3F, 3Fh, 077, 0b1010, or as it stands there',
}

/** Asks what was seen, and tells while it is typed what that amounts to. */
function See({ machine, signs, onDone }: { machine: Machine; signs: Signs; onDone: () => void }) {
  const see = useSeeSign(machine.id)
  const boards = useQuery(assembliesQuery(machine.id)).data ?? []
  const [kind, setKind] = useState<SignKind>(signs.lists.some(({ table }) => table.row.length > 0) ? 'lamps' : 'screen')
  const [shown, setShown, forget] = useKept(`sign of ${String(machine.id)}`, '')
  const [during, setDuring] = useState('')
  const [board, setBoard] = useState('')
  const row = kind === 'lamps' ? signs.lists.find(({ table }) => table.row.length > 0)?.table.row : undefined
  const fields: SightingFields = { kind, shown, during, assemblyId: Number(board) || undefined }
  const settled = useSettled(shown, 250)
  const read = useQuery(signReadingQuery(machine.id, { ...fields, shown: settled }))
  return (
    <RecordForm keptAs={`sign as seen of ${String(machine.id)}`}
      error={see.error} isPending={see.isPending} action="Save" onCancel={() => { forget(); onDone() }}
      onSubmit={(form) => {
        see.mutate({ ...fields, during: textOf(form, 'during'), note: textOf(form, 'note'), on: textOf(form, 'on') },
          { onSuccess: () => { forget(); onDone() } })
      }}>
      <FieldGrid>
        <Choice label="What it shows" value={kind} options={kinds} onChange={setKind} />
        <Field label="What the machine was doing" name="during" value={during} onChange={setDuring} list="states-of-signs"
          placeholder="self-test" hint="Empty where that is not known" />
        {boards.length > 0 && <Choice label="Shown by" value={board} onChange={setBoard}
          options={[{ value: '', text: 'the machine, or not known' },
            ...boards.map(({ id, title }) => ({ value: String(id), text: title }))]} />}
        <Field label="On" name="on" mono placeholder="today" hint="YYYY-MM-DD" />
      </FieldGrid>
      <datalist id="states-of-signs">{signs.states.map((state) => <option key={state} value={state} />)}</datalist>
      {row && <LampSwitches row={row} lit={shown} onChange={(lit) => { setShown(() => lit) }} />}
      <Field label="What was seen" name="shown" value={shown} onChange={(text) => { setShown(() => text) }} mono isRequired
        rows={kind === 'screen' ? 3 : undefined} hint={hints[kind]} autoFocus />
      {shown.trim() && read.data && <div role="status"><WhatItMeans read={read.data} /></div>}
      {shown.trim() && read.error && <p role="status"><Faint>{messageOf(read.error)}</Faint></p>}
      <Field label="Note" name="note" />
    </RecordForm>
  )
}

const Seen = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
  > li { padding: ${space(1)} 0; border-bottom: 1px solid ${color.line}; }
`
const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 4px ${space(1)};
`
