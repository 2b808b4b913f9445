import styled from 'styled-components'

import type { OperatingCard } from '../../../../api/setup'
import { color, font, space } from '../../../../theme'
import { Numbered } from './Numbered'

type Word = NonNullable<OperatingCard['lamps'][number]['data']>

/** What is done at a panel, step by step, with what its lamps show. */
export function PanelSteps({ lamps }: { lamps: OperatingCard['lamps'] }) {
  return (
    <Steps>
      {lamps.map(({ line, verb, said, address, data }) => (
        <li key={line}>
          <b>{verb}</b>{verb === 'press' || verb === 'note' ? ` ${said}` : ''}
          {address && <Row word={address} name="address" />}
          {data && <Row word={data} name="data" />}
        </li>
      ))}
    </Steps>
  )
}

function Row({ word, name }: { word: Word; name: string }) {
  return (
    <Line>
      <small>{name}</small>
      <Lights role="img" aria-label={`${name} lamps: ${word.value}`}>
        {word.lit.map((on, i) => <i key={i} data-on={on || undefined}
          data-first={startsGroup(word, word.lit.length - i) || undefined} />)}
      </Lights>
      <code>{word.value}</code>
    </Line>
  )
}

/** Whether a lamp is the highest of its group; `left` counts it and those below it. */
const startsGroup = ({ grouped, bytes }: Word, left: number) =>
  bytes ? ((left - 1) % 8 + 1) % grouped === 0 || (left - 1) % 8 === 7 : left % grouped === 0

const Steps = styled(Numbered)`
  display: grid;
  gap: ${space(1)};
`
const Line = styled.span`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${space(1)};
  small { width: 56px; color: ${color.faint}; }
  code { font: 15px ${font.mono}; }
`
const Lights = styled.span`
  display: inline-flex;
  flex-wrap: wrap;
  i { width: 13px; height: 13px; margin: 1px; border: 1px solid ${color.edge}; border-radius: 50%; }
  i[data-first] { margin-left: 7px; }
  i[data-on] { border-color: ${color.rust}; background: ${color.rust}; print-color-adjust: exact; }
`
