import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import type { KnownFields } from '../../api/known'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { type Settled, type QuestionView, type Unknown, useAnswer, useAsk, useChangeQuestion,
  useGuess } from '../../api/unknowns'
import { Button, Buttons } from '../../kit/Button'
import { Field, FieldGrid } from '../../kit/Field'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'
import { RecordForm, textOf } from '../../kit/RecordForm'
import { KnownForm } from '../../rooms/library/known/KnownForm'
import { TypeForm } from '../../rooms/library/TypeForm'
import { VirtualList } from '../../kit/VirtualList'
import { color, font, space } from '../../theme'
import { spotAddress } from '../../kit/spot'

/** What nobody knows yet: each with what is known of it, guesses, who is asked, and the way to settle it. */
export function UnknownList({ open, onSettled }: { open: Unknown[]; onSettled: (words: string) => void }) {
  return (
    <List items={open} estimate={120} keyOf={(one) => `${one.sort} ${one.subject}`}>
      {(one) => <One unknown={one} onSettled={onSettled} />}
    </List>
  )
}

const words: Partial<Record<Unknown['sort'], string>> = { reading: 'doubtful reading', unit: 'other unit', sign: 'sign that no list tells of' }

/** What is counted of something unknown. */
const unitOf = ({ sort, parts }: Unknown) =>
  sort === 'sign' ? (parts === 1 ? 'time' : 'times') : parts === 1 ? 'part' : 'parts'

type Doing = 'guessing' | 'asking' | 'answering'

function One({ unknown, onSettled }: { unknown: Unknown; onSettled: (words: string) => void }) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [doing, setDoing] = useState<Doing>()
  const ask = useAsk()
  const { question, places } = unknown
  // What is written about needs a question first; the first word about it makes one.
  const begin = (next: Doing) => {
    if (question) setDoing(next)
    else ask.mutate({ sort: unknown.sort, subject: unknown.subject }, { onSuccess: () => { setDoing(next) } })
  }
  const done = () => { setDoing(undefined) }
  return (
    <>
      <Head>
        <Subject>{unknown.subject}</Subject>
        <Faint>
          {words[unknown.sort] ?? unknown.sort}
          {unknown.parts > 0
            && `, ${unknown.sort === 'sign' ? 'seen ' : ''}${String(unknown.parts)} ${unitOf(unknown)} on ${
              String(unknown.machines)} ${unknown.machines === 1 ? 'machine' : 'machines'}`}
        </Faint>
        {mayWrite && (
          <Buttons>
            <Button $tone="quiet" aria-label={`Guess what ${unknown.subject} is`} onPress={() => { begin('guessing') }}>
              Guess
            </Button>
            <Button $tone="quiet" aria-label={`Say who is asked about ${unknown.subject}`}
              onPress={() => { begin('asking') }}>Who is asked</Button>
            <Button $tone="quiet" aria-label={`Answer what ${unknown.subject} is`}
              onPress={() => { begin('answering') }}>Answer</Button>
          </Buttons>
        )}
      </Head>
      {ask.error && <Notice tone="stop" word="Not written.">{messageOf(ask.error)}</Notice>}
      <Places places={places} sort={unknown.sort} />
      {question && <Thought question={question} />}
      {question && doing === 'guessing' && <Guessing question={question} onDone={done} />}
      {question && doing === 'asking' && <Asking question={question} onDone={done} />}
      {question && doing === 'answering' && <Answering unknown={unknown} question={question} onSettled={onSettled}
        onDone={done} />}
    </>
  )
}

const fewPlaces = 4

/** Where something unknown stands. */
function linkOf({ machineId, assemblyId, line }: Unknown['places'][number], sort: Unknown['sort']) {
  if (machineId && sort === 'sign') return `/bench/${String(machineId)}/judge#signs`
  return spotAddress(machineId, { assembly: assemblyId, line })
}

function Places({ places, sort }: Pick<Unknown, 'places' | 'sort'>) {
  const [all, setAll] = useState(false)
  const shown = all ? places : places.slice(0, fewPlaces)
  return (
    <ul>
      {shown.map((place) => (
        <li key={`${String(place.machineId)} ${String(place.assemblyId)} ${String(place.line)} ${place.marking}`}>
          <Link to={linkOf(place, sort)}>
            {[place.accession, place.assembly, place.designators].filter(Boolean).join(' ')}
          </Link>{' '}
          <Mono>{place.marking}</Mono>
          <Faint>{[place.date && ` ${sort === 'sign' ? 'on' : 'dated'} ${place.date}`,
            place.neighbours && ` beside ${place.neighbours.split(' ').join(', ')}`].filter(Boolean).join(',')}</Faint>
        </li>
      ))}
      {!all && places.length > fewPlaces && <li>
        <Button $tone="quiet" onPress={() => { setAll(true) }}>{places.length - fewPlaces} more places</Button>
      </li>}
    </ul>
  )
}

/** What was thought and asked so far. */
function Thought({ question }: { question: QuestionView }) {
  return (
    <>
      {question.text && <p>{question.text}</p>}
      {question.asked && <p>Asked: {question.asked}</p>}
      <ul>{question.guesses.map((guess) => <li key={guess.id}>Perhaps <strong>{guess.text}</strong>,
        because {guess.reason} <Faint>{guess.by}</Faint></li>)}</ul>
    </>
  )
}

function Guessing({ question, onDone }: { question: QuestionView; onDone: () => void }) {
  const guess = useGuess()
  return (
    <RecordForm keptAs={`guess of ${String(question.id)}`}
      error={guess.error} isPending={guess.isPending} action="Note the guess"
      onSubmit={(form) => {
        guess.mutate({ id: question.id, text: textOf(form, 'text'), reason: textOf(form, 'reason') },
          { onSuccess: onDone })
      }} onCancel={onDone}>
      <FieldGrid>
        <Field label="It could be" name="text" isRequired autoFocus placeholder="an address decoder" />
        <Field label="Because" name="reason" isRequired placeholder="it sits between the processor and the memory" />
      </FieldGrid>
    </RecordForm>
  )
}

function Asking({ question, onDone }: { question: QuestionView; onDone: () => void }) {
  const change = useChangeQuestion(question.id)
  return (
    <RecordForm keptAs={`question ${String(question.id)}`}
      error={change.error} isPending={change.isPending} action="Save"
      onSubmit={(form) => { change.mutate({ version: question.version, text: textOf(form, 'text'),
        asked: textOf(form, 'asked') }, { onSuccess: onDone }) }} onCancel={onDone}>
      <Field label="What one sees, and what is asked" name="text" defaultValue={question.text} rows={2} autoFocus />
      <Field label="Who is asked, and since when" name="asked" defaultValue={question.asked}
        placeholder="Saltmarsh Repair Club, 2026-11-20" />
    </RecordForm>
  )
}

function Answering({ unknown, question, onSettled, onDone }: { unknown: Unknown; question: QuestionView;
  onSettled: (words: string) => void; onDone: () => void }) {
  const answer = useAnswer()
  const [source, setSource] = useState('')
  const begun = { id: question.id, version: question.version }
  const settled = ({ recognised, machines }: Settled) => {
    onSettled(`${unknown.subject} is settled${recognised > 0
      ? `: ${String(recognised)} parts on ${String(machines)} machines are known by it now` : ''}.`)
    onDone()
  }
  if (unknown.nameable) {
    return (
      <>
        <Field label="Where the answer comes from" value={source} onChange={setSource} isRequired autoFocus
          placeholder="data book of 1983, page 212" />
        <TypeForm
          keptAs={`type for ${unknown.subject}`}
          start={{ number: unknown.subject }}
          error={answer.error}
          isPending={answer.isPending}
          action={`Settle ${String(unknown.parts)} ${unknown.parts === 1 ? 'part' : 'parts'}`}
          onSubmit={(type) => { answer.mutate({ ...begun, answer: type.function, source, type },
            { onSuccess: settled }) }}
          onCancel={onDone}
        />
      </>
    )
  }
  if (isUnit(unknown.sort)) {
    return (
      <>
        <p><Faint>The answer names it: it is recognised on every machine at once.</Faint></p>
        <KnownForm
          keptAs={`card for ${unknown.subject}`}
          start={startOf(unknown)}
          error={answer.error}
          isPending={answer.isPending}
          action={`Name ${unknown.parts > 1 ? `all ${String(unknown.parts)}` : 'it'}`}
          onSubmit={(known) => { answer.mutate({ ...begun, answer: known.name, source: known.source ?? '', known },
            { onSuccess: settled }) }}
          onCancel={onDone}
        />
      </>
    )
  }
  return (
    <RecordForm keptAs={`answer of ${unknown.sort} ${unknown.subject}`}
      error={answer.error} isPending={answer.isPending} action="Settle it"
      onSubmit={(form) => { answer.mutate({ ...begun, answer: textOf(form, 'answer'), source: textOf(form, 'source') },
        { onSuccess: settled }) }} onCancel={onDone}>
      <FieldGrid>
        <Field label="It is" name="answer" isRequired autoFocus />
        <Field label="Where the answer comes from" name="source" isRequired />
      </FieldGrid>
    </RecordForm>
  )
}

const isUnit = (sort: Unknown['sort']) => sort === 'card' || sort === 'board' || sort === 'unit'

/** What the record of a card begins with: by what it would be recognised, and what it is called where it stands. */
const startOf = ({ sort, subject, places, knownBy }: Unknown): Partial<KnownFields> => ({
  kind: sort === 'unit' ? (places[0]?.kind as KnownFields['kind']) ?? 'other' : sort as 'card' | 'board',
  name: places[0]?.assembly, numbers: knownBy === 'number' ? subject : '', printed: knownBy === 'words' ? subject : '',
})

/** Asks about something that stands on no sheet. */
export function AskAbout({ machineId, onDone }: { machineId: number | null; onDone: () => void }) {
  const ask = useAsk()
  const sorts: Unknown['sort'][] = ['connector', 'switch', 'card', 'board', 'unit', 'chip', 'other']
  return (
    <RecordForm
      keptAs={`question about ${String(machineId)}`}
      error={ask.error}
      isPending={ask.isPending}
      action="Ask"
      onSubmit={(form) => {
        ask.mutate({ sort: textOf(form, 'sort') as Unknown['sort'], subject: textOf(form, 'subject'),
          text: textOf(form, 'text'), asked: textOf(form, 'asked'), machineId }, { onSuccess: onDone })
      }}
      onCancel={onDone}
    >
      <FieldGrid>
        <Sort>What sort of thing<select name="sort">{sorts.map((sort) =>
          <option key={sort}>{sort}</option>)}</select></Sort>
        <Field label="What it is called" name="subject" isRequired autoFocus
          placeholder="connector beside the supply, 9 pins" />
        <Field label="Who is asked, and since when" name="asked" />
      </FieldGrid>
      <Field label="What one sees, and what is asked" name="text" rows={2} />
    </RecordForm>
  )
}

const List = styled(VirtualList<Unknown>)`
  > li { padding: ${space(1)} 0; border-bottom: 1px solid ${color.line}; }
`
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 ${space(2)};
`
const Subject = styled.strong`
  font-family: ${font.mono};
  overflow-wrap: anywhere;
`
const Mono = styled.span`
  font-family: ${font.mono};
`
const Sort = styled.label`
  display: flex;
  flex-direction: column;
  gap: 2px;
  select { min-height: 40px; border: 1px solid ${color.edge}; background: ${color.sheet}; color: ${color.ink}; }
`
