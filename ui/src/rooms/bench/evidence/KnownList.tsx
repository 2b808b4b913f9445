import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type Known, type Stated, useRetractStatement } from '../../../api/dossier'
import { messageOf } from '../../../api/problem'
import { useAccount } from '../../../api/session'
import { Button, Buttons } from '../../../kit/Button'
import { Field } from '../../../kit/Field'
import { Mark, type MarkKind } from '../../../kit/Mark'
import { Notice } from '../../../kit/Notice'
import { RecordForm, textOf } from '../../../kit/RecordForm'
import { color, font, space, thumb, target } from '../../../theme'
import { StatementForm } from './StatementForm'

const marks: Record<Known['judgement']['state'], MarkKind> = { settled: 'done', open: 'none', disputed: 'attention' }

/** What is known of each attribute: the best supported value, the statements, and what would settle it. */
export function KnownList({ machineId, known, onPicture }: { machineId: number; known: Known[];
  onPicture: (id: number, region: Stated['region']) => void }) {
  return (
    <List>
      {known.map((one) => <One key={one.attribute.key} machineId={machineId} known={one} onPicture={onPicture} />)}
    </List>
  )
}

function One({ machineId, known, onPicture }: { machineId: number; known: Known;
  onPicture: (id: number, region: Stated['region']) => void }) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [adding, setAdding] = useState(false)
  const { attribute, judgement, statements } = known
  const standing = new Map(judgement.groups.flatMap((group) =>
    group.statements.map((said) => [`${String(said.id)} ${said.kind} ${said.value}`, group.standing] as const)))
  return (
    <li data-state={judgement.state}>
      <Head>
        <strong>{attribute.label}</strong>
        <Value>{judgement.value
          || (judgement.state === 'disputed' ? judgement.groups.filter((g) => g.standing === 'rival').map((g) =>
            g.value).join(' or ') : '')}</Value>
        <State><Mark kind={marks[judgement.state]} /> {judgement.state}</State>
        {mayWrite && <Button $tone="quiet" aria-label={`Add a statement about ${attribute.label}`}
          onPress={() => { setAdding(!adding) }}>Add a statement</Button>}
      </Head>
      {judgement.next && <Next>To settle it: {judgement.next}.</Next>}
      {adding && <StatementForm machineId={machineId} attribute={attribute.key} onDone={() => { setAdding(false) }} />}
      {statements.map((said, i) => (
        <Said key={said.id || `follows ${String(i)}`} said={said}
          standing={standing.get(`${String(said.id)} ${said.kind} ${said.value}`)} mayWrite={mayWrite}
            onPicture={onPicture} machineId={machineId} />
      ))}
    </li>
  )
}

function Said({ said, standing, mayWrite, machineId, onPicture }: {
  said: Stated
  standing: string | undefined
  mayWrite: boolean
  machineId: number
  onPicture: (id: number, region: Stated['region']) => void
}) {
  const [withdrawing, setWithdrawing] = useState(false)
  const retract = useRetractStatement()
  const source = [said.follows ? `from ${said.follows}` : said.cited, said.page && `page ${said.page}`, said.party,
    said.statedOn, said.link].filter(Boolean).join(', ')
  return (
    <Line $faint={said.retracted !== '' || standing === 'contradicted'}>
      <span>{said.kind}</span>
      <Words>
        <Value as={said.retracted ? 's' : 'span'}>{said.value}</Value> {source}
        {said.by && <> · noted by {said.by}</>}
        {standing === 'contradicted' && <em> contradicted</em>}
        {said.retracted && <em> withdrawn: {said.retracted}</em>}{' '}
        {said.spot && (
          <Link to={`/bench/${String(machineId)}/look-over`} state={{ spot: said.spot }}>line {said.spot.line}</Link>
        )}
        {said.pictureId && <Go onPress={() => { if (said.pictureId) onPicture(said.pictureId, said.region) }}>
          {said.region ? 'place on the picture' : 'the picture'}
        </Go>}
        {mayWrite && said.id > 0 && !said.retracted && (
          <Go aria-label={`Withdraw ${said.value}`} onPress={() => { setWithdrawing(true) }}>withdraw</Go>
        )}
      </Words>
      {withdrawing && (
        <Whole>
          <RecordForm
            error={retract.error}
            isPending={retract.isPending}
            action="It does not count any more"
            onSubmit={(form) => { retract.mutate({ id: said.id, why: textOf(form, 'why') },
              { onSuccess: () => { setWithdrawing(false) } }) }}
            onCancel={() => { setWithdrawing(false) }}
          >
            <Field label="Why it does not count any more" name="why" isRequired autoFocus />
          </RecordForm>
        </Whole>
      )}
      {retract.error && !withdrawing && <Notice tone="stop" word="Not withdrawn.">{messageOf(retract.error)}</Notice>}
    </Line>
  )
}

/** The button that notes a statement about anything. */
export function AddStatement({ machineId }: { machineId: number }) {
  const [adding, setAdding] = useState(false)
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
const Line = styled.div<{ $faint: boolean }>`
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: ${space(1)};
  font-size: 15px;
  ${({ $faint }) => $faint && `color: ${color.faint};`}
  > :first-child { color: ${color.faint}; }
  [data-state='disputed'] & { color: ${color.ink}; }
  [data-state='disputed'] & > :first-child { color: ${color.ink}; }
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
