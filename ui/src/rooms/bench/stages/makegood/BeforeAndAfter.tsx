import styled from 'styled-components'

import { originalOf } from '../../../../api/attachments'
import { type Job, type JobFields, useChangeJob } from '../../../../api/work'
import { isStandIn } from '../../../../data/standIns'
import { PhotoButton } from '../../../../features/pictures/PhotoButton'
import { Thumb } from '../../../../features/pictures/Thumb'
import { Thumbs } from '../../../../features/pictures/Thumbs'
import { Mark } from '../../../../kit/Mark'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { space } from '../../../../theme'

/** What a job looked like and measured before it, and after. */
export function BeforeAndAfter({ job, mayWrite }: { job: Job; mayWrite: boolean }) {
  const change = useChangeJob(job.id)
  const keep = (more: Partial<JobFields>) => { change.mutate({ ...fieldsOf(job), ...more, version: job.version }) }
  const { picturesBefore: before = [], picturesAfter: after = [], measured } = job
  const isEnded = job.state === 'done' || job.state === 'declined'
  if (!mayWrite && before.length + after.length + measured.length === 0) return null
  return (
    <>
      <Both>{[{ name: 'Before', ids: before, add: (ids: number[]) => { keep({ picturesBefore: [...before, ...ids] }) } },
        { name: 'After', ids: after, add: (ids: number[]) => { keep({ picturesAfter: [...after, ...ids] }) } },
      ].map(({ name, ids, add }) => (
        <div key={name}>
          {ids.length > 0 && <Thumbs aria-label={`${name}: ${job.title}`}>{ids.map((id) => (
            <li key={id}>{isStandIn(id) ? <Thumb id={id} alt={`${name} ${job.title}`} />
              : <a href={originalOf(id)} target="_blank" rel="noreferrer"><Thumb id={id} alt={`${name} ${job.title}`} /></a>}</li>
          ))}</Thumbs>}
          {mayWrite && job.state !== 'declined' && (name === 'Before' ? !isEnded || ids.length > 0 : true)
            && <PhotoButton owner={{ machine: job.machineId }} label={`Photo ${name.toLowerCase()} it`} isQuiet onKept={add} />}
        </div>
      ))}</Both>
      {measured.length > 0 && <p>Measured there: {measured.map((one, i) => (
        <span key={one.id}>{i > 0 && '; '}<Mark kind={one.verdict === 'fail' ? 'problem' : one.verdict === 'pass' ? 'done'
          : 'unknown'} /> {one.said} <Faint>{one.on}{isEnded && (one.after ? ', after' : ', before')}</Faint></span>
      ))}</p>}
      <NotSaved error={change.error} />
    </>
  )
}

const Both = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px ${space(2)};
`

/** What is written of a job, without how it stands. */
function fieldsOf({ title, template, findingKeys, assemblyId, place, needs, proof, temporary, note, picturesBefore,
  picturesAfter }: Job): JobFields {
  return { title, template, findingKeys, assemblyId, place, needs, proof, temporary, note, picturesBefore,
    picturesAfter }
}
