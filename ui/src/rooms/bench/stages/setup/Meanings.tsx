import styled from 'styled-components'

import type { Meaning } from '../../../../api/setup'
import { Mark } from '../../../../kit/Mark'
import { Faint } from '../../../../kit/Page'
import { color, font, space } from '../../../../theme'

/** What jumpers and switches mean, as they stand: known, one of several, or not known, with why. */
export function Meanings({ meanings }: { meanings: Meaning[] }) {
  if (meanings.length === 0) return <p><Faint>No setting is noted.</Faint></p>
  return (
    <List>
      {meanings.map((one, i) => (
        <li key={i}>
          <code>{one.name}</code>
          <Standing name={one.name} at={one.at} />
          <span>
            {one.state !== 'known' && <Mark kind="unknown" />} {one.means.join(one.state === 'several' ? ', or ' : ', ')}
            {one.why && <Faint>{one.means.length > 0 ? '; ' : ''}{one.why}</Faint>}
          </span>
        </li>
      ))}
    </List>
  )
}

/** How it stands: a row of switches as they are seen, anything else in words. */
function Standing({ name, at }: { name: string; at: string }) {
  const row = at.split(' ')
  if (!row.every((one) => ['on', 'off', '?'].includes(one))) return <code>{at}</code>
  return (
    <Row role="img" aria-label={`${name}: ${at}`}>
      {row.map((one, i) => <i key={i} data-at={one} />)}
    </Row>
  )
}

const List = styled.ul`
  display: grid;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
  li { display: grid; grid-template-columns: minmax(70px, 110px) minmax(70px, 190px) minmax(0, 1fr); gap: ${space(1)};
    align-items: center; }
  code { font: 14px ${font.mono}; overflow-wrap: anywhere; }
  span { overflow-wrap: anywhere; }
`
const Row = styled.span`
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
  i { position: relative; width: 14px; height: 26px; border: 1px solid ${color.edge}; background: ${color.sheet}; }
  i::after { content: ''; position: absolute; left: 2px; width: 8px; height: 10px; background: ${color.slate}; }
  i[data-at='on']::after { top: 2px; }
  i[data-at='off']::after { bottom: 2px; background: ${color.edge}; }
  i[data-at='?']::after { content: '?'; top: 3px; background: none; font: 13px/18px ${font.mono}; }
`
