import styled from 'styled-components'

import type { GuideItem, SurveyView } from '../../../../api/judge'
import { Button } from '../../../../kit/Button'
import { Mark } from '../../../../kit/Mark'
import { color } from '../../../../theme'

/** What the survey goes through, and how far it is. */
export function SurveyList({ guide, inspections, at, onGo }: { guide: GuideItem[];
  inspections: SurveyView['inspections']; at: number;
  onGo: (at: number) => void }) {
  return (
    <List aria-label="Subsystems">
      {guide.map(({ subsystem, name }, i) => {
        const look = inspections.find((one) => one.subsystem === subsystem)?.coverage
        return (
          <li key={subsystem} aria-current={i === at ? 'step' : undefined}>
            <Button $tone="quiet" onPress={() => { onGo(i) }}>
              <Mark kind={look === 'inspected' ? 'done' : look === 'absent' ? 'none'
                : look ? 'later' : i === at ? 'working' : 'none'} /> {name} <span>{look ?? 'to do'}</span>
            </Button>
          </li>
        )
      })}
    </List>
  )
}

const List = styled.ol`
  display: flex;
  flex-wrap: wrap;
  gap: 0 4px;
  li[aria-current] { background: ${color.slateGround}; }
  svg { vertical-align: -3px; }
  span { color: ${color.faint}; font-size: 13px; }
`
