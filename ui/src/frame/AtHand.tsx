import { useState } from 'react'
import { Button } from 'react-aria-components'
import { Link, useLocation, useMatch } from 'react-router'
import styled from 'styled-components'

import { useAccount } from '../api/session'
import { announce } from '../api/announced'
import { lastOnBench } from '../kit/lastOnBench'
import { useNarrow } from '../kit/useNarrow'
import { openAt } from '../kit/usePanel'
import { PhotoButton } from '../features/pictures/PhotoButton'
import { color, space, target } from '../theme'

/** On a phone, what one does at the machine in hand, from every page: photo, finding, measurement, note, move. */
export function AtHand({ onNote }: { onNote: () => void }) {
  const isNarrow = useNarrow()
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const { key } = useLocation()
  const [openOn, setOpenOn] = useState<string>()
  const isOpen = openOn === key // a move closes it
  const here = Number(useMatch('/bench/:machineId/*')?.params.machineId)
  const machine = here || lastOnBench() || 0
  if (!isNarrow || !mayWrite || !machine) return null
  const bench = `/bench/${String(machine)}`
  return (
    <Corner>
      {isOpen && (
        <Deeds aria-label="At the machine in hand">
          <PhotoButton owner={{ machine }} onKept={() => { setOpenOn(undefined); announce('The photo is kept.') }} />
          <Link to={openAt(`${bench}/judge`, 'finding')}>Finding</Link>
          <Link to={`${bench}/judge#measurements`}>Measurement</Link>
          <Plain onPress={() => { setOpenOn(undefined); onNote() }}>Note</Plain>
          <Link to={openAt(`${bench}/arrive`, 'move')}>Move</Link>
        </Deeds>
      )}
      <Plus aria-label={isOpen ? 'Close' : 'Photo, finding, measurement, note or move'} aria-expanded={isOpen}
        onPress={() => { setOpenOn(isOpen ? undefined : key) }}>{isOpen ? '×' : '+'}</Plus>
    </Corner>
  )
}

const Corner = styled.div`
  position: fixed;
  right: ${space(1)};
  bottom: 60px; /* above the line of the reckoning */
  z-index: 4;
  display: flex;
  flex-direction: column;
  align-items: end;
  gap: ${space(1)};
  @media print { display: none; }
`
const Deeds = styled.nav`
  display: flex;
  flex-direction: column;
  border: 1px solid ${color.slate};
  background: ${color.sheet};
  a, button { display: flex; align-items: center; min-height: ${target.main}; padding: 0 ${space(2)}; border: none;
    background: transparent; color: ${color.slate}; font: inherit; text-align: left; text-decoration: none; }
`
const Plain = styled(Button)`
  cursor: pointer;
`
const Plus = styled(Button)`
  width: 52px;
  height: 52px;
  border: 1px solid ${color.slate};
  border-radius: 50%;
  background: ${color.slate};
  color: ${color.onSlate};
  font-size: 28px;
  line-height: 1;
  cursor: pointer;
  &[data-focus-visible] { outline: 2px solid ${color.ink}; outline-offset: 2px; }
`
