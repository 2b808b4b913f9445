import { Label, Radio, RadioGroup } from 'react-aria-components'
import styled from 'styled-components'

import type { Stretch } from '../../../../api/assemblies'
import { color, font, space, target } from '../../../../theme'
import type { Choice } from './mergeChoices'

type Props = { stretch: Stretch; who: string; choice: Choice | undefined; onChoose: (choice: Choice) => void }

/** Lines that two people changed differently, side by side, to choose from. */
export function Conflict({ stretch, who, choice, onChoose }: Props) {
  const was = stretch.base.length > 0 ? `Was: ${stretch.base.join(' / ')}` : 'New at the same spot'
  return (
    <Group value={choice ?? null} onChange={(value) => { onChoose(value as Choice) }}>
      <Label>{was}</Label>
      <Sides>
        <Side value="mine"><Dot /><span>Yours<Text>{said(stretch.mine)}</Text></span></Side>
        <Side value="theirs"><Dot /><span>{who}<Text>{said(stretch.theirs)}</Text></span></Side>
        <Side value="both"><Dot /><span>Both, yours first</span></Side>
      </Sides>
    </Group>
  )
}

const said = (lines: string[]) => (lines.length > 0 ? lines.join('\n') : 'taken out')

const Group = styled(RadioGroup)`
  padding: ${space(1)};
  border: 1px solid ${color.amber};
  background: ${color.sheet};
  color: ${color.ink};
  > span:first-child { color: ${color.faint}; font: 14px ${font.mono}; overflow-wrap: anywhere; }
`
const Sides = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 200px), 1fr));
  gap: ${space(1)};
  margin-top: 4px;
`
const Side = styled(Radio)`
  display: flex;
  gap: ${space(1)};
  min-height: ${target.main};
  padding: 6px ${space(1)};
  border: 1px solid ${color.line};
  cursor: pointer;
  overflow-wrap: anywhere;
  &[data-selected] { border-color: ${color.slate}; background: ${color.slateGround}; }
  &[data-focus-visible] { outline: 2px solid ${color.slate}; outline-offset: 2px; }
`
const Dot = styled.span`
  flex: none;
  width: 14px;
  height: 14px;
  margin-top: 5px;
  border: 2px solid ${color.edge};
  border-radius: 50%;
  [data-selected] > & { border: 4px solid ${color.slate}; }
`
const Text = styled.span`
  display: block;
  font: 14px/22px ${font.mono};
  white-space: pre-wrap;
`
