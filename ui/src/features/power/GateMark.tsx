import { Link } from 'react-router'
import styled from 'styled-components'

import type { Power } from '../../api/power'
import { Mark } from '../../kit/Mark'
import { color, space } from '../../theme'
import { gateMark, gateName } from './states'

/** How the power gate of a machine stands, in its head: it leads to what is missing. */
export function GateMark({ machineId, power }: { machineId: number; power: Power | undefined }) {
  if (!power) return null
  const { length } = power.missing
  return (
    <Gate to={`/bench/${String(machineId)}/power-up`} $danger={power.danger}
      title="What is missing before power, by what is recorded">
      <Mark kind={gateMark(power)} /> gate: {gateName(power.state)}{length > 0 && `, ${String(length)} missing`}
    </Gate>
  )
}

const Gate = styled(Link)<{ $danger: boolean }>`
  display: inline-flex;
  align-items: center;
  gap: 4px;
  min-height: 28px;
  padding: 0 ${space(1)};
  border: 1px solid ${({ $danger }) => ($danger ? color.rust : color.line)};
  background: ${({ $danger }) => ($danger ? color.rustGround : color.sheet)};
  color: ${color.ink};
  font-size: 15px;
  text-decoration: none;
  white-space: nowrap;
  @media (max-width: 600px) { min-height: 44px; }
`
