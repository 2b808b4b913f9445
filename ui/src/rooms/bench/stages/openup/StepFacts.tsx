import styled from 'styled-components'

import { viewOf } from '../../../../api/attachments'
import type { Fastener, StepView } from '../../../../api/openup'
import { Faint } from '../../../../kit/Page'
import { color, font } from '../../../../theme'
import { Pattern } from './Pattern'
import { Thumbs } from '../../../../features/pictures/Thumbs'
import { WarningList } from './WarningList'

/** Fasteners, plugs, what may snap, and the photos of a step. */
export function StepFacts({ step, large }: { step: StepView; large?: boolean }) {
  const [wide, high] = large ? [320, 240] : [96, 72]
  return (
    <>
      <Lines>
        {step.fasteners.map((fastener, i) => (
          <li key={i}>
            {inWords(fastener)} <Kept>{whereOf(fastener)}</Kept>
            {fastener.keeping === 'laid' && <Pattern points={fastener.pattern ?? []} />}
          </li>
        ))}
        {step.tabs.map((tab) => <li key={tab}>mind: {tab}</li>)}
        {step.connectors.length > 0
          && <li>unplugged: {step.connectors.map((name) => (step.open.includes(name) ? `${name} (open)` : name))
            .join(', ')}</li>}
        {step.differs.map(({ subject, value }) => <li key={subject}>{subject}: {value}</li>)}
        {(step.needs ?? []).length > 0 && <li>needs off: {step.needs?.join(', ')}</li>}
        {(step.frees ?? []).length > 0 && <li>frees: {step.frees?.join(', ')}</li>}
        {step.look?.map((look) => <li key={look}>look at: {look}</li>)}
        {step.note && <li>{step.note}</li>}
      </Lines>
      {large && <WarningList title="" warnings={step.warnings.filter(({ kind }) => kind !== 'not counted')} />}
      <Thumbs>
        {step.pictures.map((id) => (
          <li key={id}><a href={viewOf(id, 'screen')} target="_blank" rel="noreferrer">
            <img src={viewOf(id, large ? 'screen' : 'thumb')} alt={`Photo of step ${String(step.n)}, ${step.off}`}
              width={wide} height={high} />
          </a></li>
        ))}
      </Thumbs>
      <Faint>{[step.by, step.reversedBy && step.state !== 'off' && `put back by ${step.reversedBy}`].filter(Boolean)
        .join(', ')}</Faint>
    </>
  )
}

export function inWords({ count, kind, lengthMm, washer, tool }: Fastener): string {
  return [`${String(count)} x ${kind}${lengthMm ? ` x ${String(lengthMm)} mm` : ''}`, washer && `${washer} washer`,
    tool].filter(Boolean).join(', ')
}

function whereOf({ keeping, cell }: Fastener): string {
  return keeping === 'cell' ? (cell ?? '') : keeping === 'laid' ? 'laid out as they came' : 'in their holes'
}

const Lines = styled.ul`
  font-size: 15px;
  overflow-wrap: anywhere;
  &:empty { display: none; }
`
const Kept = styled.span`
  padding: 0 4px;
  border: 1px solid ${color.slate};
  color: ${color.slate};
  font: 600 13px ${font.mono};
`
