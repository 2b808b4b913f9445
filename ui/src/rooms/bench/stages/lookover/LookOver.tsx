import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useLocation } from 'react-router'

import { assemblyQuery, type FittedAssembly } from '../../../../api/assemblies'
import type { Dossier } from '../../../../api/dossier'
import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { useAccount } from '../../../../api/session'
import { Mark } from '../../../../kit/Mark'
import { Notice } from '../../../../kit/Notice'
import { Part } from '../../../../kit/Part'
import { SharedIdentifiers } from '../../../../features/sharedidentifiers/SharedIdentifiers'
import { Pictures } from '../../../../features/pictures/Pictures'
import { type Opened, pictureAt } from '../../../../features/pictures/region'
import { useReckoning } from '../../../../features/reckoning/useReckoning'
import { useShowSpot } from '../../../../features/reckoning/useShowSpot'
import { AddStatement, KnownList } from '../../evidence/KnownList'
import { Left } from '../Left'
import { Board } from '../takestock/Board'
import { Walk } from './Walk'

/** What the outside tells: the walk round the machine with its sheet, and what is known by all sources. */
export function LookOver({ machine, dossier }: { machine: Machine; dossier: Dossier }) {
  const exterior = useQuery(assemblyQuery(dossier.exteriorId))
  if (exterior.error) return <Notice tone="stop" word="Not read.">{messageOf(exterior.error)}</Notice>
  return exterior.data ? <Exterior machine={machine} dossier={dossier} exterior={exterior.data} /> : null
}

function Exterior({ machine, dossier, exterior }: { machine: Machine; dossier: Dossier; exterior: FittedAssembly }) {
  const mayWrite = useAccount()?.mayWriteSheets ?? false
  const reckoning = useReckoning({ assembly: exterior.id }, machine.version, [exterior])
  const [opened, setOpened] = useState<Opened | undefined>(pictureAt(useLocation().search))
  const [insert, setInsert] = useState<{ text: string }>()
  useShowSpot(reckoning.show)
  const walk = reckoning.machine?.walk ?? dossier.stages.walk
  return (
    <>
      <Left words="Still to be looked at" left={reckoning.machine?.left ?? dossier.stages.lookOverLeft} />
      <Walk walk={walk} mayWrite={mayWrite} onFace={(text) => { setInsert({ text }) }} />
      <Board assembly={exterior} reckonedBoard={reckoning.board(exterior.id)} reckonedText={reckoning.textOf(exterior.id)}
        setDraft={reckoning.setDraft} onShow={reckoning.onShow} mayWrite={mayWrite} startHere={false} insert={insert} />
      {dossier.twins.length > 0 && (
        <Part title="Easily mistaken outside" faint="Ports that take the same plug">
          <ul>{dossier.twins.map((one) => (
            <li key={`${one.a} ${one.b}`}><Mark kind={one.state === 'unknown' ? 'unknown' : 'attention'} />{' '}
              <strong>{one.a}</strong> and <strong>{one.b}</strong>: {one.why}.
              {one.harm && ' Where they are mistaken, a supply goes where none belongs: label both.'}</li>
          ))}</ul>
        </Part>
      )}
      <SharedIdentifiers of={{ kind: 'machine', id: machine.id }} sharedIdentifiers={dossier.sharedIdentifiers} />
      <Part title="What is known"
        faint={`${String(dossier.stages.evidenceSettled)} of ${String(dossier.known.length)} settled`}>
        {mayWrite && <AddStatement machineId={machine.id} />}
        {dossier.lost.map((lost) => <Notice key={lost.attribute} tone="attention" word="Lost.">{lost.words}</Notice>)}
        <KnownList machineId={machine.id} known={dossier.known}
          onPicture={(id, region, from) => { setOpened({ id, region, from }) }} />
      </Part>
      <Pictures owner={{ machine: machine.id }} opened={opened} onOpen={setOpened} />
    </>
  )
}

