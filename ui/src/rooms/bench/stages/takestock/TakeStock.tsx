import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import type { FittedAssembly } from '../../../../api/assemblies'
import type { Machine } from '../../../../api/machines'
import { useAccount } from '../../../../api/session'
import { Button, Buttons } from '../../../../kit/Button'
import { Faint } from '../../../../kit/Page'
import { usePanel } from '../../../../kit/usePanel'
import { Peripherals } from '../../../../features/peripherals/Peripherals'
import type { Reckoning } from '../../../../features/reckoning/useReckoning'
import { useShowSpot } from '../../../../features/reckoning/useShowSpot'
import { color, space } from '../../../../theme'
import { AddBoard } from './AddBoard'
import { Board } from './Board'
import { FitFromStore } from './moves/FitFromStore'
import { PastBoards } from './PastBoards'
import { PasteBoards } from './PasteBoards'

/** Board by board: the assemblies of the machine one below the other, each with its sheet. */
export function TakeStock({ machine, assemblies, reckoning }: { machine: Machine; assemblies: FittedAssembly[];
  reckoning: Reckoning }) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const [board, addBoard] = usePanel('board')
  const [sheet, pasteSheet] = usePanel('sheet')
  const [loose, fitLoose] = usePanel('loose')
  const [newest, setNewest] = useState<number>()
  useShowSpot(reckoning.show)
  const done = (close: (isOpen: boolean) => void) => (id?: number) => {
    close(false)
    setNewest(id)
  }
  return (
    <Boards>
      {mayWrite && (
        <Buttons>
          <Button $small={assemblies.length > 0} $tone={assemblies.length ? undefined : 'main'}
            onPress={() => { addBoard(true) }}>Add a board</Button>
          <Button $small={assemblies.length > 0} onPress={() => { pasteSheet(true) }}>
            Paste a sheet with headings
          </Button>
          <Button $small={assemblies.length > 0} onPress={() => { fitLoose(true) }}>Fit one from store</Button>
          {assemblies.length === 0 && <Faint>Start with the main board: add it, then write down what the eye meets, a
            line a part.</Faint>}
        </Buttons>
      )}
      {!mayWrite && assemblies.length === 0 && <p>Nothing is written down about the inside of this machine yet.</p>}
      {board && <AddBoard machineId={machine.id} isFirst={assemblies.length === 0} onDone={done(addBoard)} />}
      {sheet && <PasteBoards machineId={machine.id} onDone={done(pasteSheet)} />}
      {loose && <FitFromStore machine={machine} onDone={done(fitLoose)} />}
      {assemblies.map((assembly) => (
        <Board
          key={assembly.id}
          assembly={assembly}
          reckonedBoard={reckoning.board(assembly.id)}
          reckonedText={reckoning.textOf(assembly.id)}
          setDraft={reckoning.setDraft}
          onShow={reckoning.onShow}
          mayWrite={mayWrite}
          startHere={assembly.id === newest}
        />
      ))}
      <Peripherals machine={machine} mayWrite={mayWrite} />
      <PastBoards machineId={machine.id} />
      {assemblies.length > 0 && (
        <Leave>
          Sheets of the machine: <a href={`/api/machines/${String(machine.id)}/sheets.txt`} download>as text</a>,{' '}
          <a href={`/api/machines/${String(machine.id)}/entries.csv`} download>as a table (CSV)</a>,{' '}
          <Link to={`/bench/${String(machine.id)}/print`}>on paper, with the reckoning</Link>
        </Leave>
      )}
    </Boards>
  )
}

const Leave = styled.p`
  color: ${color.faint};
`
const Boards = styled.div`
  display: flex;
  flex-direction: column;
  gap: ${space(3)};
`
