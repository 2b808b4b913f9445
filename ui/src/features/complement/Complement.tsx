import { Link } from 'react-router'
import styled from 'styled-components'

import type { Glance, GlanceUnit } from '../../api/glance'
import { Mark } from '../../kit/Mark'
import { color, font, radius, space } from '../../theme'
import { spotAddress } from '../../kit/spot'

/** The boards and cards of a machine as they sit: the board, its slots in their order, and what is around them. */
export function Complement({ machineId, layout, units }: { machineId: number; layout: Glance['layout'];
  units: GlanceUnit[] }) {
  const block = (id: number) => units.filter(({ assemblyId }) => assemblyId === id).map((unit) =>
    <Block key={id} machineId={machineId} unit={unit} />)
  const nameOf = (id: number) => units.find(({ assemblyId }) => assemblyId === id)?.title
  return (
    <Case>
      {layout.boards.length > 0 && <Row aria-label="Boards">{layout.boards.map((id) => <li key={id}>{block(id)}</li>)}</Row>}
      {layout.bays.length > 0 && (
        <Bays aria-label="Slots">
          {layout.bays.map((bay) => (
            <li key={bay.slot}>
              <Slot>slot {bay.slot}{bay.kind && ` · ${bay.kind}`}</Slot>
              {bay.units.flatMap(block)}
              {bay.units.length === 0 && <Empty>{bay.coveredBy ? `covered by ${nameOf(bay.coveredBy) ?? 'another'}`
                : 'empty'}</Empty>}
            </li>
          ))}
        </Bays>
      )}
      {layout.others.length > 0 && <Row aria-label="Around them">{layout.others.map((id) =>
        <li key={id}>{block(id)}</li>)}</Row>}
      {layout.remarks.map((remark) => <p key={remark}><Mark kind="attention" /> {remark}.</p>)}
    </Case>
  )
}

const fits: Record<string, string> = { period: 'from its period', later: 'put in later', modern: 'modern' }

function Block({ machineId, unit }: { machineId: number; unit: GlanceUnit }) {
  const holds = [unit.ram && `RAM ${unit.ram}`, unit.rom && `ROM ${unit.rom}`].filter(Boolean).join(' · ')
  return (
    <Unit to={spotAddress(machineId, { assembly: unit.assemblyId, line: 1 })}>
      <b>{unit.title}</b>
      <small>{[unit.part, unit.known && unit.known !== unit.title && unit.known].filter(Boolean).join(' · ')}</small>
      {holds && <span>{holds}</span>}
      {unit.dates && <small><Whole>{unit.dates.from}</Whole>{unit.dates.from !== unit.dates.to
        && <> to <Whole>{unit.dates.to}</Whole></>}</small>}
      {fits[unit.fit] && <small>{fits[unit.fit]}</small>}
      {unit.disputed && <small><Mark kind="problem" /> two records say what it is</small>}
      {unit.unidentified > 0 && <small><Mark kind="unknown" /> {unit.unidentified} unknown</small>}
      {unit.findings > 0 && <small><Mark kind={unit.worst === 'hazard' || unit.worst === 'repair' ? 'problem'
        : 'attention'} /> {unit.findings} {unit.findings === 1 ? 'finding' : 'findings'}, {unit.worst}</small>}
    </Unit>
  )
}

const Whole = styled.span`
  white-space: nowrap;
`
const Case = styled.div`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  padding: ${space(1)};
  border: 1px solid ${color.edge};
  background: ${color.paper};
`
const Row = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 170px), 1fr));
  gap: ${space(1)};
  list-style: none;
  margin: 0;
  padding: 0;
  li { display: flex; min-width: 0; }
`
const Bays = styled.ol`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 126px), 1fr));
  gap: ${space(1)};
  list-style: none;
  margin: 0;
  padding: 0;
  li { display: flex; flex-direction: column; gap: 4px; min-width: 0; }
`
const Slot = styled.span`
  color: ${color.faint};
  font: 13px ${font.mono};
`
const Empty = styled.span`
  flex: 1;
  padding: ${space(1)};
  border: 1px dashed ${color.edge};
  border-radius: ${radius};
  color: ${color.faint};
  font-size: 14px;
`
const Unit = styled(Link)`
  display: flex;
  flex: 1;
  flex-direction: column;
  gap: 2px;
  min-width: 0;
  padding: ${space(1)};
  border: 1px solid ${color.slate};
  border-radius: ${radius};
  background: ${color.sheet};
  color: ${color.ink};
  line-height: 1.3;
  text-decoration: none;
  overflow-wrap: anywhere;
  small { color: ${color.faint}; font-size: 14px; }
  &:hover { background: ${color.slateGround}; }
`
