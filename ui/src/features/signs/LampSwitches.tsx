import { Button } from 'react-aria-components'
import styled from 'styled-components'

import { color, radius, space, target } from '../../theme'
import { Lamp, lampWords } from './LampRow'

const turns: Record<string, string> = { 0: '1', 1: '*', '*': '?', '?': '0' }

/** A row of lamps to be set as it was seen: dark, lit, blinking, or not looked at. */
export function LampSwitches({ row, lit, onChange }: { row: string[]; lit: string; onChange: (lit: string) => void }) {
  const lamps = row.map((_, i) => lit[i] ?? '0')
  const turn = (at: number) => lamps.map((is, i) => i === at ? turns[is] ?? '0' : is).join('')
  return (
    <Row role="group" aria-label="Lamps, from the left">
      {row.map((name, i) => {
        const is = lamps[i] ?? '0'
        return (
          <One key={name} onPress={() => { onChange(turn(i)) }}>
            <Lamp is={is} />{name}: {is === '?' ? 'not looked at' : lampWords[is]}
          </One>
        )
      })}
    </Row>
  )
}

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(1)};
`
const One = styled(Button)`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: ${target.small};
  padding: 0 10px;
  border: 1px solid ${color.line};
  border-radius: ${radius};
  background: ${color.sheet};
  color: ${color.ink};
  font: inherit;
  cursor: pointer;
`
