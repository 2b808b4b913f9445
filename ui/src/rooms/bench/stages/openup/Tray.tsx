import styled from 'styled-components'

import type { TeardownView } from '../../../../api/openup'
import { Button } from '../../../../kit/Button'
import { color, font, space } from '../../../../theme'

/** The tray as it is now: each cell holds the fasteners of one step. */
export function Tray({ log }: { log: TeardownView }) {
  const taken = log.cells.filter(({ step }) => step > 0)
  return (
    <Frame aria-label="Tray">
      <Head>
        <strong>Tray</strong>
        <span>{taken.length} of {log.cells.length} cells</span>
        {taken.length > 0
          && <Button $small
            onPress={() => { window.open(`/bench/${String(log.machineId)}/tray-labels/${String(log.id)}`, '_blank',
              'noopener') }}>Print labels</Button>}
      </Head>
      <Grid $columns={log.columns}>
        {log.cells.map((cell) => (
          <li key={cell.name} data-taken={cell.step > 0 || undefined} data-mixed={cell.mixed !== '' || undefined}
            title={cell.step > 0 ? `${cell.name}: step ${String(cell.step)}, ${cell.off}` : `${cell.name} is free`}>
            <b>{cell.name}</b>
            {cell.step > 0 && <span><em>{cell.step}</em> {cell.holds.join(', ')}</span>}
          </li>
        ))}
      </Grid>
      {log.cells.filter(({ mixed }) => mixed).map(({ name, mixed }) => <Mixed key={name}>{mixed}</Mixed>)}
    </Frame>
  )
}

const Frame = styled.section`
  padding: ${space(1)};
  border: 1px solid ${color.line};
  background: ${color.sheet};
`
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px ${space(1)};
  padding-bottom: ${space(1)};
  > span { color: ${color.faint}; font-size: 14px; }
`
const Grid = styled.ol<{ $columns: number }>`
  display: grid;
  grid-template-columns: repeat(${({ $columns }) => $columns}, minmax(0, 1fr));
  gap: 2px;
  li {
    min-height: 44px;
    padding: 2px 3px;
    border: 1px solid ${color.line};
    overflow: hidden;
    font: 11px/1.25 ${font.body};
    overflow-wrap: anywhere;
  }
  li[data-taken] { border-color: ${color.slate}; background: ${color.slateGround}; }
  li[data-mixed] { border-color: ${color.rust}; background: ${color.rustGround}; }
  b { display: block; color: ${color.faint}; font: 600 11px ${font.mono}; }
  em { font: 700 11px ${font.mono}; }
`
const Mixed = styled.p`
  padding-top: 4px;
  color: ${color.rust};
  font-size: 14px;
`
