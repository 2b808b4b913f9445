import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type Practice as Told, practiceQuery, useBeginPractice } from '../../api/practice'
import { messageOf } from '../../api/problem'
import { gateMark, gateName } from '../../features/power/states'
import { Button, Buttons } from '../../kit/Button'
import { Cautions } from '../../kit/Cautions'
import { Field, FieldGrid } from '../../kit/Field'
import { Mark } from '../../kit/Mark'
import { Notice } from '../../kit/Notice'
import { Faint, Page, Title } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { Skeleton } from '../../kit/Skeleton'
import { color, space } from '../../theme'
import { Bench } from './Bench'
import { Debrief, SayWhat } from './NamedFault'
import { PracticeLadder } from './PracticeLadder'

/** A machine that is none, with something wrong with it: the ladder and diagnosis are practised on it. */
export default function Practice() {
  const practice = useQuery(practiceQuery)
  const told = practice.data
  return (
    <Page>
      <Title>Practice</Title>
      <Banner role="note"><strong>Practice.</strong> This machine is simulated. Nothing of it is a record: it stands in no list,
        no history and no export, and each account has its own.</Banner>
      {practice.error && <Notice tone="stop" word="Not read.">{messageOf(practice.error)}</Notice>}
      {!told && !practice.error && <Skeleton what="Practice" lines={10} />}
      {told && !told.address && <p>No practice machine is set up. Start <code>heron instruments</code>, and the application with
        {' '}<code>--practice</code>, <code>--meter</code> and <code>--console</code>.</p>}
      {told?.address && <Session told={told} />}
    </Page>
  )
}

function Session({ told }: { told: Told }) {
  const begin = useBeginPractice()
  const [number, setNumber] = useState('')
  const { exercise, gate, debrief } = told
  const buttons = (
    <form onSubmit={(event) => { 
      event.preventDefault()
      begin.mutate(Number(number) || 0, { onSuccess: () => { window.scrollTo({ top: 0 }) } })
    }}>
      <FieldGrid><Field label="Number of the machine" name="number" value={number} onChange={setNumber} mono
        inputMode="numeric" hint="The same number is the same machine, for a group that practises; empty for any" /></FieldGrid>
      <Buttons><Button type="submit" $tone={exercise ? undefined : 'main'} isPending={begin.isPending}>
        {exercise ? 'Begin with another machine' : 'Begin'}</Button></Buttons>
    </form>
  )
  if (!exercise || !gate) {
    return (
      <>
        <p>A board computer with two memory boards and a disk card waits in its cage. One thing is wrong with it. Go up the
          ladder, measure and listen, and say what it is: a supply that sags, a card with a short, a memory chip, the
          clock&apos;s cell, or a console that says nothing.</p>
        {buttons}
        {begin.error && <Notice tone="stop" word="Not begun.">{messageOf(begin.error)}</Notice>}
      </>
    )
  }
  return (
    <>
      {debrief && <Debrief debrief={debrief} />}
      <Bench told={told} exercise={exercise} />
      <PracticeLadder exercise={exercise} />
      {!debrief && <SayWhat faults={told.faults} />}
      <Part title="Gate" faint="As it would stand for a machine that is one">
        <p><Mark kind={gateMark({ state: gate.state, danger: false })} /> <strong>{gateName(gate.state)}</strong></p>
        {gate.missing.length > 0 && <ul aria-label="What is missing">{gate.missing.map((one) => (
          <li key={`${one.id} ${one.what}`}>{one.what}. <Faint>{one.do}</Faint></li>
        ))}</ul>}
        <Cautions cautions={told.cautions} />
      </Part>
      <Part title="What was done" faint={`${String(exercise.log.length)} deeds`}>
        <Log aria-label="Deeds">{exercise.log.map((entry, i) => (
          <li key={i}>{entry.kind} {entry.what} {entry.seen && <Faint>{entry.seen}</Faint>}
            {entry.slip && <p><Mark kind="problem" /> On a real machine: {entry.slip}.</p>}</li>
        ))}</Log>
      </Part>
      {buttons}
      {begin.error && <Notice tone="stop" word="Not begun.">{messageOf(begin.error)}</Notice>}
      <p><Faint>Where the ladder of a real machine is worked at: <Link to="/bench">Bench</Link>, stage Power up.</Faint></p>
    </>
  )
}

const Banner = styled.p`
  margin: 0;
  padding: ${space(1)} ${space(2)};
  border: 2px dashed ${color.slate};
`
const Log = styled.ol`
  margin: 0;
  padding-left: 3ch;
  p { margin: 0; }
`
