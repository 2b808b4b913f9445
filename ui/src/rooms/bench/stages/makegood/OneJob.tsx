import { useState } from 'react'
import { Link } from 'react-router'

import type { FittedAssembly } from '../../../../api/assemblies'
import { type Job, type JobFields, type UsualJob, useChangeJob, useVoidJob, useWorkOnJob } from '../../../../api/work'
import { Button, Buttons } from '../../../../kit/Button'
import { Cautions } from '../../../../kit/Cautions'
import { EditRecord } from '../../../../kit/EditRecord'
import { inHours } from '../../../../kit/hours'
import { Mark, type MarkKind } from '../../../../kit/Mark'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { Facts, InHand } from '../../../../kit/Part'
import { BeforeAndAfter } from './BeforeAndAfter'
import { FinishForm } from './FinishForm'
import { GoesOnForm } from './GoesOnForm'
import { ProofForm } from './ProofForm'
import { JobForm } from './JobForm'

const marks: Record<Job['state'], MarkKind> = { 'waiting for part': 'later', 'waiting for hands': 'none',
  'in hand': 'working', done: 'done', declined: 'part' }

type Props = { job: Job; boards: FittedAssembly[]; usual: UsualJob[]; mayWrite: boolean }

/** A job: how it stands, in which order it is done, what people forget, and what one does with it. */
export function OneJob({ job, boards, usual, mayWrite }: Props) {
  const [doing, setDoing] = useState<'edit' | 'finish' | 'goes on' | 'proof'>()
  const change = useChangeJob(job.id)
  const goOn = useWorkOnJob(job.id)
  const voiding = useVoidJob()
  const done = () => { setDoing(undefined) }
  if (doing === 'edit') {
    return (
      <EditRecord<Job, JobFields & { version: number }> keptAs={`job ${String(job.id)}`} record={job} change={change}
        newerIn={(newer) => newer.job} names={names} onDone={done}>
        {(form) => <JobForm start={job} action="Save" boards={boards} usual={usual} {...form} />}
      </EditRecord>
    )
  }
  const isOpen = job.state !== 'done' && job.state !== 'declined'
  const board = boards.find(({ id }) => id === job.assemblyId)
  return (
    <InHand aria-label={job.title}>
      <h3><Mark kind={job.unproven ? 'attention' : marks[job.state]} /> {job.title}{' '}
        <Faint>{job.state}{job.unproven && ', unproven'}{job.minutes > 0 && `, ${inHours(job.minutes)} spent`}</Faint></h3>
      <Facts>
        {(board ?? job.place) && <><dt>Where</dt><dd>{board && <Link
          to={`/bench/${String(job.machineId)}/take-stock?at=${String(board.id)}`}>{board.title}</Link>} {job.place}</dd></>}
        {job.needs && job.needs.length > 0 && isOpen && <><dt>Needs</dt><dd>{job.needs.join(', ')}{mayWrite && <>{' '}
          <Link to={`/stores/needs?job=${String(job.id)}`}>Where they are</Link></>}</dd></>}
        {job.left && <><dt>Left to do</dt><dd>{job.left}</dd></>}
        {job.why && <><dt>Why</dt><dd>{job.why}</dd></>}
        {job.proof && job.state !== 'declined' && <><dt>{isOpen ? 'To be proven by' : job.unproven
          ? 'Not proven by' : 'Proven by'}</dt><dd>{job.proof}{job.ending.provenBy && `: ${job.ending.provenBy}`}
          {job.ending.proofs.length > 1 && <Faint> (tested {job.ending.proofs.map(({ on }) => on).join(', ')})</Faint>}</dd></>}
        {job.proofDue && <><dt>To test again</dt><dd>by {job.proofDue}, unless it runs before</dd></>}
        {job.temporary && <><dt>Temporary</dt><dd>the lasting repair is due by {job.temporary}</dd></>}
        {job.note && <><dt>Note</dt><dd>{job.note}</dd></>}
        {job.ending.on && <><dt>Done</dt><dd>{[job.ending.on, job.ending.by, job.ending.new && `now in: ${job.ending.new}`,
          job.ending.takenOut && 'the place is empty',
          job.ending.oldPart && `the old part was ${job.ending.oldPart}`].filter(Boolean).join('; ')}</dd></>}
      </Facts>
      <BeforeAndAfter job={job} mayWrite={mayWrite} />
      {isOpen && job.usual && (
        <details>
          <summary>In working order, usually {inHours(job.usual.minutes)}</summary>
          <ol>{job.usual.steps.map((step, i) => <li key={step}>{i + 1}. {step}</li>)}</ol>
          <p><Faint>Tools: {job.usual.tools.join(', ')}. Used up: {job.usual.needs.join(', ')}.</Faint></p>
        </details>
      )}
      {isOpen && job.usual && <p><Mark kind="attention" /> <strong>Easily forgotten:</strong> {job.usual.forget}.</p>}
      {job.state === 'in hand' && <Cautions cautions={job.cautions} />}
      {doing === 'finish' && <FinishForm job={job} onDone={done} />}
      {doing === 'proof' && <ProofForm job={job} onDone={done} />}
      {doing === 'goes on' && <GoesOnForm job={job} onDone={done} />}
      {mayWrite && doing === undefined && (
        <Buttons>
          {job.state !== 'in hand' && <Button $small $tone={isOpen ? 'main' : undefined} isPending={goOn.isPending}
            aria-label={`${isOpen ? 'Take in hand' : 'Take up again'}: ${job.title}`}
            onPress={() => { goOn.mutate({ version: job.version, state: 'in hand', left: job.left }) }}>
            {isOpen ? 'Take in hand' : 'Take up again'}</Button>}
          {job.state === 'done' && job.proof && <Button $small $tone={job.unproven ? 'main' : undefined}
            aria-label={`Test made: ${job.title}`} onPress={() => { setDoing('proof') }}>Test made</Button>}
          {isOpen && <Button $small $tone={job.state === 'in hand' ? 'main' : undefined} aria-label={`Done: ${job.title}`}
            onPress={() => { setDoing('finish') }}>Done</Button>}
          {isOpen && <Button $small aria-label={`Waits, in part, declined: ${job.title}`}
            onPress={() => { setDoing('goes on') }}>Waits, in part, declined</Button>}
          <Button $small $tone="quiet" aria-label={`Edit ${job.title}`} onPress={() => { setDoing('edit') }}>Edit</Button>
          <Button $small $tone="quiet" isPending={voiding.isPending} aria-label={`Delete ${job.title}`}
            onPress={() => { voiding.mutate(job) }}>Delete</Button>
        </Buttons>
      )}
      <NotSaved error={goOn.error ?? voiding.error} />
    </InHand>
  )
}

const names: Partial<Record<keyof Job, string>> = { title: 'what is to be done', place: 'place', needs: 'waits for',
  proof: 'test that proves it', temporary: 'lasting repair due', note: 'note', state: 'state' }
