import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type Fact, type Known, type Stated, useRetractStatement } from '../../../api/dossier'
import { messageOf } from '../../../api/problem'
import { useAccount } from '../../../api/session'
import { Button, Buttons } from '../../../kit/Button'
import { Field } from '../../../kit/Field'
import { Mark, type MarkKind } from '../../../kit/Mark'
import { Notice } from '../../../kit/Notice'
import { RecordForm, textOf } from '../../../kit/RecordForm'
import { secondOf } from '../../../features/pictures/Recording'
import { usePanel } from '../../../kit/usePanel'
import { color, font, space, thumb, target } from '../../../theme'
import { spotAddress } from '../../../kit/spot'
import { StatementForm } from './StatementForm'

const marks: Record<Fact['state'], MarkKind> = { settled: 'done', open: 'none', disputed: 'attention' }

/** What is known of each attribute: the best supported value, the statements, and what would settle it. */
export function KnownList({ machineId, known, onPicture }: { machineId: number; known: Known[];
  onPicture: (id: number, region: Stated['region'], from?: number) => void }) {
  return (
    <List>
      {known.map((one) => <One key={one.attribute.key} machineId={machineId} known={one} onPicture={onPicture} />)}
    </List>
  )
}

function One({ machineId, known, onPicture }: { machineId: number; known: Known;
  onPicture: (id: number, region: Stated['region'], from?: number) => void }) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [adding, setAdding] = useState(false)
  const { attribute, fact, statements } = known
  const name = [attribute.label, fact.subject].filter(Boolean).join(', ')
  return (
    <li data-state={fact.state}>
      <Head>
        <strong>{name}</strong>
        <Value>{fact.now?.value ?? (fact.state === 'disputed' ? rivals(known).join(' or ') : '')}</Value>
        <State><Mark kind={marks[fact.state]} /> {fact.state}</State>
        {mayWrite && <Button $tone="quiet" aria-label={`Add a statement about ${name}`}
          onPress={() => { setAdding(!adding) }}>Add a statement</Button>}
      </Head>
      <TimeLine name={name} fact={fact} />
      {fact.explanations.map((one) => <Next key={one.id + one.blocks.join()}>{one.text}.</Next>)}
      {fact.next && <Next>{fact.state === 'settled' ? 'To be sure' : 'To settle it'}: {fact.next}.</Next>}
      {adding && <StatementForm machineId={machineId} attribute={attribute.key} subject={fact.subject}
        onDone={() => { setAdding(false) }} />}
      {statements.map((said) => (
        <Said key={said.ref} said={said} standing={standingOf(fact, said.ref)} mayWrite={mayWrite}
          onPicture={onPicture} machineId={machineId} />
      ))}
    </li>
  )
}

/** The values between which nothing decides, each once. */
function rivals({ fact, statements }: Known): string[] {
  const ids = new Set(fact.differ.flatMap((one) => one.ids))
  return [...new Set(statements.filter(({ ref }) => ids.has(ref)).map(({ value }) => value))]
}

/** How a statement stands to what counts; empty where it says the same, or nothing else does. */
function standingOf(fact: Fact, ref: string): string {
  if (fact.explanations.some(({ id }) => id === ref)) return fact.agree.some((g) => g.includes(ref)) ? 'explained' : ''
  if (fact.then.some(({ ids }) => ids.includes(ref))) return 'before'
  if (fact.state !== 'disputed' && fact.differ.some(({ ids }) => ids[1] === ref)) return 'says otherwise'
  return ''
}

/** What was so before, up to what is so now. */
function TimeLine({ name, fact }: { name: string; fact: Fact }) {
  if (fact.then.length === 0 && !fact.failedBetween) return null
  const [worked, failed] = fact.failedBetween ?? []
  return (
    <Line>
      <ol aria-label={`${name} over time`}>
        {fact.then.map((one) => (
          <li key={one.ids.join()}>
            <Value>{one.value}</Value> <span>{one.until ? `until ${dayWords(one.until)}` : 'before'}</span>
          </li>
        ))}
        {fact.now && <li aria-current="true"><Value>{fact.now.value}</Value> <span>now</span></li>}
      </ol>
      {worked && failed && <Next>Last known to work {dayWords(worked)}; it failed between then and {dayWords(failed)}.
      </Next>}
    </Line>
  )
}

/** A day that nobody wrote down is one by which it was so. */
const dayWords = (edtf: string) => edtf.startsWith('../') ? `by ${edtf.slice(3)}` : edtf.split('/')[0] || edtf

function Said({ said, standing, mayWrite, machineId, onPicture }: {
  said: Stated
  standing: string
  mayWrite: boolean
  machineId: number
  onPicture: (id: number, region: Stated['region'], from?: number) => void
}) {
  const [withdrawing, setWithdrawing] = useState(false)
  const retract = useRetractStatement()
  const second = said.pictureId ? secondOf(said.page ?? '') : undefined
  const source = [said.follows ? `from ${said.follows}` : said.cited, said.page && (second === undefined ? `page ${said.page}` : `at ${said.page}`), said.party,
    said.statedOn, said.link].filter(Boolean).join(', ')
  return (
    <Spoken $faint={said.retracted !== '' || standing === 'says otherwise' || standing === 'before'}>
      <span>{said.kind}</span>
      <Words>
        <Value as={said.retracted ? 's' : 'span'}>{said.value}</Value> {source}
        {said.by && <> · noted by {said.by}</>}
        {standing && <em> {standing}</em>}
        {said.problem && <em> not weighed: {said.problem}</em>}
        {said.retracted && <em> withdrawn: {said.retracted}</em>}{' '}
        {said.spot && (
          <Link to={spotAddress(machineId, said.spot, 'look-over')}>line {said.spot.line}</Link>
        )}
        {said.pictureId && <Go onPress={() => { if (said.pictureId) onPicture(said.pictureId, said.region, second) }}>
          {second !== undefined ? 'the moment' : said.region ? 'place on the picture' : 'the picture'}
        </Go>}
        {mayWrite && said.id > 0 && !said.retracted && (
          <Go aria-label={`Withdraw ${said.value}`} onPress={() => { setWithdrawing(true) }}>withdraw</Go>
        )}
      </Words>
      {withdrawing && (
        <Whole>
          <RecordForm
            keptAs={`withdrawal of statement ${String(said.id)}`}
            error={retract.error}
            isPending={retract.isPending}
            action="Withdraw"
            onSubmit={(form) => { retract.mutate({ id: said.id, why: textOf(form, 'why') },
              { onSuccess: () => { setWithdrawing(false) } }) }}
            onCancel={() => { setWithdrawing(false) }}
          >
            <Field label="Why it does not count any more" name="why" isRequired autoFocus />
          </RecordForm>
        </Whole>
      )}
      {retract.error && !withdrawing && <Notice tone="stop" word="Not withdrawn.">{messageOf(retract.error)}</Notice>}
    </Spoken>
  )
}

/** The button that notes a statement about anything. */
export function AddStatement({ machineId }: { machineId: number }) {
  const [adding, setAdding] = usePanel('statement')
  if (adding) return <StatementForm machineId={machineId} onDone={() => { setAdding(false) }} />
  return <Buttons><Button onPress={() => { setAdding(true) }}>Note a statement</Button></Buttons>
}

const List = styled.ul`
  > li { padding: ${space(1)} 0; border-bottom: 1px solid ${color.line}; }
  > li[data-state='disputed'] { border-left: 3px solid ${color.amber}; padding-left: ${space(1)};
    background: ${color.amberGround}; }
`
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 ${space(2)};
  strong { min-width: 160px; font-weight: 600; }
`
const Value = styled.span`
  font-family: ${font.mono};
  font-size: 15px;
  overflow-wrap: anywhere;
`
const State = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 4px;
  color: ${color.faint};
  margin-left: auto;
`
const Next = styled.p`
  color: ${color.faint};
  font-size: 14px;
`
const Spoken = styled.div<{ $faint: boolean }>`
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: ${space(1)};
  font-size: 15px;
  ${({ $faint }) => $faint && `color: ${color.faint};`}
  > :first-child { color: ${color.faint}; }
  [data-state='disputed'] & { color: ${color.ink}; }
  [data-state='disputed'] & > :first-child { color: ${color.ink}; }
`
const Line = styled.div`
  ol { display: flex; flex-wrap: wrap; gap: ${space(1)} 0; margin: ${space(1)} 0; padding: 0; list-style: none; }
  li { display: flex; flex-wrap: wrap; gap: 0 ${space(1)}; padding: 2px ${space(2)} 2px ${space(1)};
    border-left: 3px solid ${color.line}; border-top: 1px solid ${color.line}; color: ${color.faint}; }
  li[aria-current] { border-color: ${color.slate}; color: ${color.ink}; }
  li > span:last-child { font-size: 14px; }
`
const Words = styled.span`
  overflow-wrap: anywhere;
`
const Whole = styled.div`
  grid-column: 1 / -1;
`
const Go = styled(Button)`
  && { min-height: 0; padding: 0 4px; border: none; text-decoration: underline; font-size: 15px; }
  ${thumb} { && { min-height: ${target.small}; } }
`
