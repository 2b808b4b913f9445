import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { Link, useNavigate } from 'react-router'
import styled from 'styled-components'

import { viewOf } from '../../../api/attachments'
import type { Dossier } from '../../../api/dossier'
import { type Glance, glanceQuery } from '../../../api/glance'
import { historyQuery } from '../../../api/history'
import { conditionQuery } from '../../../api/judge'
import { treatmentQuery } from '../../../api/work'
import { type Machine, usePictureOf } from '../../../api/machines'
import { messageOf } from '../../../api/problem'
import { Complement } from '../../../features/complement/Complement'
import { Always } from '../../../features/upkeep/MachineUpkeep'
import { moment } from '../../../features/history/moment'
import { Button } from '../../../kit/Button'
import { Mark } from '../../../kit/Mark'
import { Notice } from '../../../kit/Notice'
import { Faint } from '../../../kit/Page'
import { Part } from '../../../kit/Part'
import { Skeleton } from '../../../kit/Skeleton'
import { useShortcut } from '../../../kit/shortcuts'
import { color, font, space } from '../../../theme'
import { lastStage } from '../../../kit/lastOnBench'
import { stages } from '../stages'
import { ChainDrawing } from '../stages/arrive/ChainDrawing'
import { StripTable } from '../stages/judge/Strip'
import { Built } from './Built'

/** The machine on one page: what it is, how it sits, its figures, its past, how it is, and what is next. */
export function AtAGlance({ machine, dossier }: { machine: Machine; dossier: Dossier }) {
  const glance = useQuery(glanceQuery(machine.id))
  if (glance.error) return <Notice tone="stop" word="Not read.">{messageOf(glance.error)}</Notice>
  if (!glance.data) return <Skeleton what="The machine" lines={14} />
  const { sentence, layout, units, figures, built, urgent } = glance.data
  return (
    <>
      <Top>
        <Picture machine={machine} />
        <div>
          <Sentence>{sentence}</Sentence>
          <Figures>{figures.map(({ key, label, value }) => <div key={key}><dt>{label}</dt><dd>{value}</dd></div>)}</Figures>
          <Back machineId={machine.id} />
        </div>
      </Top>
      <Always machineId={machine.id} />
      <Next machineId={machine.id} urgent={urgent} />
      <Part title="As it sits" faint="Each leads to its sheet">
        {units.length === 0 ? <p>Nothing is written down about its inside yet. <Link
          to={`/bench/${String(machine.id)}/take-stock`}>Take stock</Link> begins with the main board.</p>
          : <Complement machineId={machine.id} layout={layout} units={units} />}
      </Part>
      <Part title="When it was built" action={<Link to={`/bench/${String(machine.id)}/identify`}>why</Link>}>
        <Built built={built} />
      </Part>
      <Part title="Through whose hands" action={<Link to={`/bench/${String(machine.id)}/arrive`}>the whole story</Link>}>
        {(dossier.chain.links.length > 0 ? <ChainDrawing chain={dossier.chain}
          arrived={dossier.arrival.lot?.arrived ?? ''} /> : <p><Faint>Nothing is written down of its past.</Faint></p>)}
      </Part>
      <How machineId={machine.id} />
      <Treated machineId={machine.id} />
      <Lately machineId={machine.id} />
      <p><Link to={`/bench/${String(machine.id)}/print`}>On paper, with the sheets</Link></p>
    </>
  )
}

/** The picture by which it is known; else a drawn outline. */
function Picture({ machine }: { machine: Machine }) {
  const shown = usePictureOf(machine.id)
  return (
    <Frame>
      {shown > 0 ? <img src={viewOf(shown, 'screen')} width={240} height={180} alt={machine.name} />
        : (
          <svg viewBox="0 0 240 180" role="img" aria-label="There is no picture yet">
            <g fill="none" stroke="currentColor" strokeWidth="2">
              <rect x="50" y="20" width="140" height="80" /><rect x="64" y="32" width="112" height="56" />
              <rect x="30" y="104" width="180" height="34" /><path d="M140 116h56M140 126h56M44 120h20" />
              <path d="M24 150h192l8 12H16z" />
            </g>
          </svg>
        )}
    </Frame>
  )
}

/** The way back to the stage that one was in. */
function Back({ machineId }: { machineId: number }) {
  const navigate = useNavigate()
  const stage = stages.find(({ path }) => path === lastStage())
  const to = stage ? `/bench/${String(machineId)}/${stage.path}` : ''
  useShortcut((key, event) => {
    if (key !== 'b' || !to) return
    event.preventDefault()
    void navigate(to)
  })
  return stage ? <Button onPress={() => void navigate(to)}>Back to {stage.name} (b)</Button> : null
}

function Next({ machineId, urgent }: { machineId: number; urgent: Glance['urgent'] }) {
  if (urgent.length === 0) return null
  const [first, ...rest] = urgent
  const line = (one: Glance['urgent'][number]) => <><Mark kind={one.state === 'stop' ? 'problem' : 'attention'} />{' '}
    <Link to={`/bench/${String(machineId)}/${one.stage}`}>{one.label}</Link>: {one.value}</>
  return (
    <Part title="Next" faint={urgent.length > 1 ? `${String(urgent.length)} want attention` : undefined}>
      {first && <p><strong>{line(first)}</strong></p>}
      <Lines>{rest.slice(0, 5).map((one) => <li key={one.key}>{line(one)}</li>)}</Lines>
    </Part>
  )
}

const few = 5

/** What is done to it, and what that waits for. */
function Treated({ machineId }: { machineId: number }) {
  const treatment = useQuery(treatmentQuery(machineId)).data
  const open = treatment?.jobs.filter(({ state }) => state !== 'done' && state !== 'declined') ?? []
  if (open.length === 0) return null
  return (
    <Part title="What it waits for" action={<Link to={`/bench/${String(machineId)}/make-good`}>jobs</Link>}>
      <Lines>{open.slice(0, few).map((job) => (
        <li key={job.id}>{job.title}: {job.state === 'waiting for part' ? `waits for ${job.needs?.join(', ') || 'a part'}`
          : job.state}{job.left && `; left: ${job.left}`}</li>
      ))}</Lines>
    </Part>
  )
}

function How({ machineId }: { machineId: number }) {
  const condition = useQuery(conditionQuery(machineId)).data
  if (!condition) return null
  return (
    <Part title="How it is" faint={condition.technical} action={<Link to={`/bench/${String(machineId)}/judge`}>findings and
      measurements</Link>}>
      {condition.surveys.length > 0 ? <StripTable condition={condition} />
        : <p><Faint>No survey was made yet.</Faint>{condition.technicalWhy && ` ${condition.technicalWhy}`}</p>}
    </Part>
  )
}

function Lately({ machineId }: { machineId: number }) {
  const events = useInfiniteQuery(historyQuery({ machine: machineId })).data?.pages[0]?.events.slice(0, few) ?? []
  if (events.length === 0) return null
  return (
    <Part title="Lately">
      <Lines>{events.map((event) => (
        <li key={event.id}><Faint>{moment(event.at)}</Faint> {event.by || 'The command line'} {event.what}</li>
      ))}</Lines>
    </Part>
  )
}

const Top = styled.div`
  display: grid;
  grid-template-columns: 240px minmax(0, 1fr);
  gap: ${space(2)};
  @media (max-width: 600px) { grid-template-columns: minmax(0, 1fr); }
`
const Frame = styled.div`
  align-self: start;
  max-width: 240px;
  border: 1px solid ${color.line};
  background: ${color.sheet};
  color: ${color.edge};
  img, svg { display: block; width: 100%; height: auto; aspect-ratio: 4 / 3; object-fit: contain; }
`
const Sentence = styled.p`
  font-size: 19px;
  line-height: 1.4;
`
const Figures = styled.dl`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(1)} ${space(3)};
  margin: ${space(1)} 0;
  dt { color: ${color.faint}; font-size: 14px; }
  dd { margin: 0; font: 600 16px ${font.mono}; }
`
const Lines = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  li { padding: 3px 0; overflow-wrap: anywhere; }
`
