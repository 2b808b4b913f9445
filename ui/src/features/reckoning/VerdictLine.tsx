import { Button, Disclosure, DisclosurePanel, Heading } from 'react-aria-components'
import { Link } from 'react-router'
import styled from 'styled-components'

import type { Verdict } from '../../api/reckoning'
import { Mark } from '../../kit/Mark'
import type { Spot } from '../../kit/spot'
import { color, font, radius, space, target, thumb } from '../../theme'

type Props = {
  verdict: Verdict
  titles: Map<number, string>
  isNews: boolean
  /** The stage is open where it is worked on; cautions stand only there. */
  isAtItsStep: boolean
  onRead: () => void
  /** The address of a line of a sheet. */
  addressOf: (spot: Spot) => string
  onGo: () => void
}

/** One line of the reckoning; pressed, it says why and leads to the spots. */
export function VerdictLine({ verdict, titles, isNews, isAtItsStep, onRead, addressOf, onGo }: Props) {
  return (
    <Line>
      <Heading level={3}>
        <Trigger slot="trigger" $state={verdict.state} onHoverStart={onRead} onFocus={onRead}>
          <Label>
            {verdict.state !== 'plain' && <Mark kind={verdict.state === 'stop' ? 'problem' : 'attention'} />}
            {verdict.label}
            {isNews && <News>changed</News>}
          </Label>
          <Value>{verdict.value}</Value>
        </Trigger>
      </Heading>
      {verdict.caution && isAtItsStep && (verdict.grave
        ? <Caution><Mark kind="attention" /> <strong>Caution</strong> {verdict.caution}</Caution>
        : <Caution as="details"><summary><Mark kind="attention" /> <strong>Caution</strong></summary> {verdict.caution}
        </Caution>)}
      <DisclosurePanel>
        <Why>
          {verdict.why.map(({ text, spot }, i) => (
            <li key={i}>
              {text}
              {spot && (
                <Go to={addressOf(spot)} onClick={onGo}>
                  {titles.get(spot.assembly) ?? 'the outside'}, line {spot.line}
                </Go>
              )}
            </li>
          ))}
        </Why>
      </DisclosurePanel>
    </Line>
  )
}

const Line = styled(Disclosure)`
  border-bottom: 1px solid ${color.line};
`
const Trigger = styled(Button)<{ $state: Verdict['state'] }>`
  display: block;
  width: 100%;
  padding: 6px ${space(1)};
  border: none;
  border-left: 3px solid ${({ $state }) => ($state === 'stop' ? color.rust : $state === 'attention' ? color.amber
    : 'transparent')};
  background: ${({ $state }) => ($state === 'stop' ? color.rustGround : 'transparent')};
  text-align: left;
  cursor: pointer;
  &[data-hovered] { background: ${color.slateGround}; }
  &[data-focus-visible] { outline: 2px solid ${color.slate}; outline-offset: -2px; }
`
const Label = styled.span`
  display: flex;
  align-items: center;
  gap: 4px;
  color: ${color.faint};
  font-size: 14px;
  font-weight: 400;
`
const News = styled.span`
  margin-left: auto;
  padding: 0 4px;
  border: 1px solid ${color.slate};
  border-radius: ${radius};
  color: ${color.slate};
  font-size: 12px;
`
const Value = styled.span`
  display: block;
  font: 600 15px/1.4 ${font.body};
  font-variant-numeric: tabular-nums;
`
const Caution = styled.p`
  margin: 4px 0 ${space(1)};
  padding: 4px ${space(1)};
  border: 1px solid ${color.amber};
  border-radius: ${radius};
  background: ${color.amberGround};
  font-size: 14px;
  line-height: 1.35;
  svg { vertical-align: -3px; }
`
const Why = styled.ul`
  padding: 4px ${space(1)} ${space(1)} 11px;
  font-size: 14px;
  overflow-wrap: anywhere;
  li { padding: 3px 0; border-top: 1px dotted ${color.line}; }
`
const Go = styled(Link)`
  display: block;
  ${thumb} { min-height: ${target.main}; }
`
