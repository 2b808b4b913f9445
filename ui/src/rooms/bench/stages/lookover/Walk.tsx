import styled from 'styled-components'

import type { WalkStep } from '../../../../api/dossier'
import { Button } from '../../../../kit/Button'
import { Mark } from '../../../../kit/Mark'
import { color, font, space } from '../../../../theme'

/** The walk round the machine: each side with what to look for there, and whether it was seen. */
export function Walk({ walk, mayWrite, onFace }: { walk: WalkStep[]; mayWrite: boolean;
  onFace: (text: string) => void }) {
  return (
    <Sides aria-label="Walk round the machine">
      {walk.map((step) => (
        <li key={step.face} data-seen={step.lookedAt || undefined}>
          <Name><Mark kind={step.lookedAt ? 'done' : 'none'} /> {step.face}</Name>
          <State>{step.lookedAt ? (step.entries === 1 ? '1 thing' : `${String(step.entries)} things`) : 'not seen'}</State>
          {!step.lookedAt && (
            <>
              <LookFor>{step.lookFor}</LookFor>
              {mayWrite && <Button $small onPress={() => { onFace(`== ${step.face}\n`) }}
                aria-label={`Write it: ${step.face}`}>Write it</Button>}
            </>
          )}
        </li>
      ))}
    </Sides>
  )
}

const Sides = styled.ol`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(108px, 1fr));
  gap: ${space(1)};
  li {
    display: flex;
    flex-direction: column;
    gap: 4px;
    padding: ${space(1)};
    border: 1px solid ${color.line};
    border-top: 3px solid ${color.edge};
    background: ${color.sheet};
  }
  li[data-seen] { border-top-color: ${color.reed}; }
`
const Name = styled.strong`
  display: flex;
  align-items: center;
  gap: 4px;
  font: 600 15px ${font.body};
`
const State = styled.span`
  color: ${color.faint};
  font-size: 14px;
`
const LookFor = styled.span`
  flex: 1;
  font-size: 13px;
  line-height: 1.35;
  color: ${color.faint};
`
